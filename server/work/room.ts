import { statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { projectFolder } from '../library/files'
import { refusal } from './answer'

const megabyte = 1048576
/** With less room than this on the disk nothing large is taken any more: what is there must stay whole. Bytes. */
const least = 200 * megabyte
/** With less than this people are told. Bytes. */
const little = 1024 * megabyte

/** Room on the disk that the desk lies on, in bytes; null where it cannot be told. */
export type Room = () => Promise<number | null>

const ownRoom: Room = async () => {
  try {
    const { bavail, bsize } = await statfs(join(projectFolder(), '.morphene'))
    return bavail * bsize
  } catch {
    return null
  }
}

/**
 * Refuses what needs room where the disk is nearly full, before anything is half written.
 * @param needs bytes that are to be written
 * @throws 507 as a sentence
 */
export async function refuseWhenFull(needs: number, room: Room = ownRoom): Promise<void> {
  const free = await room()
  if (free === null || free - needs >= least) return
  throw refusal(
    507,
    `The disk of this desk has only ${Math.floor(free / megabyte)} MB left. Nothing was kept; make room, or let go of ` +
      'what lies in the trash.',
  )
}

/** What people are told of the room on the disk; null where there is enough. */
export async function roomWords(room: Room = ownRoom): Promise<string | null> {
  const free = await room()
  if (free === null || free >= little) return null
  return `The disk of this desk has only ${Math.floor(free / megabyte)} MB left: soon nothing more can be kept.`
}
