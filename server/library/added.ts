import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { FaceRecord } from '../../core/font/face'
import { contentHash, projectFolder, readFontFile } from './files'

/*
 * Faces that people added are in the database. Threads have no way there, so the server lays them ready in a folder of
 * its own: each file under its hash, and each list of faces that belong together under the hash of the list. It is a
 * cache, made anew where it is gone.
 */

const folder = () => join(projectFolder(), '.morphene', 'added-faces')
const pathOf = (hash: string) => join(folder(), `${hash}.font`)
const listPath = (hash: string) => join(folder(), `${hash}.json`)
const isHash = (hash: string) => /^[0-9a-f]{64}$/.test(hash)

/** Whether an added face lies ready. */
export const liesReady = (hash: string): boolean => existsSync(pathOf(hash))

/** Written beside and renamed: no thread reads half a file. */
function layAt(path: string, content: Uint8Array | string): void {
  mkdirSync(folder(), { recursive: true })
  const beside = `${path}.${process.pid}`
  writeFileSync(beside, content)
  renameSync(beside, path)
}

/** Lays an added face ready. */
export function layReady(hash: string, bytes: Uint8Array): void {
  layAt(pathOf(hash), bytes)
}

/** Lays a list of faces ready and answers its name. */
export function layListReady(faces: readonly FaceRecord[]): string {
  const text = JSON.stringify(faces)
  const hash = contentHash(new TextEncoder().encode(text))
  if (!listLiesReady(hash)) layAt(listPath(hash), text)
  return hash
}

/** Whether a list lies ready. */
export const listLiesReady = (hash: string): boolean => existsSync(listPath(hash))

/** The faces of a list that lies ready. @throws Error where it does not */
export function readList(hash: string): FaceRecord[] {
  if (!isHash(hash)) throw new Error('this is no name of a list of faces')
  return JSON.parse(readFileSync(listPath(hash), 'utf8')) as FaceRecord[]
}

/** The bytes of an added face; undefined where it does not lie ready. */
export function readAddedFace(hash: string): Uint8Array | undefined {
  return isHash(hash) && liesReady(hash) ? readFontFile(pathOf(hash)) : undefined
}
