import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { projectFolder, readFontFile } from './files'

/*
 * Faces that people added are in the database. Threads have no way there, so the server lays the files ready for them
 * in a folder of its own, under their hashes: a cache, made anew where it is gone.
 */

const folder = () => join(projectFolder(), '.morphene', 'added-faces')
const pathOf = (hash: string) => join(folder(), `${hash}.font`)

/** Whether an added face lies ready. */
export const liesReady = (hash: string): boolean => existsSync(pathOf(hash))

/** Lays an added face ready. Written beside and renamed: no thread reads half a file. */
export function layReady(hash: string, bytes: Uint8Array): void {
  mkdirSync(folder(), { recursive: true })
  const beside = `${pathOf(hash)}.${process.pid}`
  writeFileSync(beside, bytes)
  renameSync(beside, pathOf(hash))
}

/** The bytes of an added face; undefined where it does not lie ready. */
export function readAddedFace(hash: string): Uint8Array | undefined {
  return /^[0-9a-f]{64}$/.test(hash) && liesReady(hash) ? readFontFile(pathOf(hash)) : undefined
}
