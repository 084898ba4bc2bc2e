import { randomUUID } from 'node:crypto'
import { open, unlink, type FileHandle } from 'node:fs/promises'
import { join } from 'node:path'
import type { H3Event } from 'h3'
import PQueue from 'p-queue'
import { defaultLimits } from '../../core/package/limits'
import { projectFolder } from '../library/files'
import { refusal } from './answer'
import { sentPieces } from './requests'
import { refuseWhenFull } from './room'

const limit = defaultLimits.fileSize
const tooLarge = `This file is larger than ${Math.round(limit / 1048576)} MB, the most that can be opened here. Nothing was kept.`
/** So many files may be on their way at once; each lies on disk meanwhile. */
const mostOnTheirWay = 24
/** So many are looked into at once: each is held in memory then. */
const mostInMemory = 3

let onTheirWay = 0
const inMemory = new PQueue({ concurrency: mostInMemory })

/** A file on the desk's own disk that no folder lists: it is gone when it is closed, however that comes. */
async function unlistedFile(): Promise<FileHandle> {
  const path = join(projectFolder(), '.morphene', `upload-${randomUUID()}`)
  const file = await open(path, 'wx+', 0o600)
  await unlink(path)
  return file
}

/**
 * Takes a file that is sent, under the size limit of packages, and does something with it. It is written to disk as it
 * comes, however slowly; only a few files are in memory at a time, so that many that are sent at once wait on disk.
 * @throws 413, 429 where too many are on their way, 507 where the disk is nearly full
 */
export async function withUpload<T>(event: H3Event, work: (bytes: Uint8Array) => Promise<T>): Promise<T> {
  if (onTheirWay >= mostOnTheirWay)
    throw refusal(429, 'Too many files are on their way just now. Nothing was kept; send this one again in a moment.')
  onTheirWay++
  let file: FileHandle | null = null
  try {
    await refuseWhenFull(limit)
    const upload = (file = await unlistedFile())
    for await (const piece of sentPieces(event, limit, tooLarge)) await upload.appendFile(piece)
    return await inMemory.add(async () => {
      const { size } = await upload.stat()
      const bytes = new Uint8Array(size)
      await upload.read(bytes, 0, size, 0)
      return work(bytes)
    })
  } finally {
    onTheirWay--
    await file?.close()
  }
}
