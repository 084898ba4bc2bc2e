import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, relative, resolve } from 'node:path'
import { CommandError } from './call'

/** @throws CommandError */
export function read(path: string | undefined): Uint8Array {
  if (path === undefined) throw new CommandError('which file? Name one after the command')
  if (!existsSync(path)) throw new CommandError(`there is no file “${path}”`)
  if (statSync(path).isDirectory()) throw new CommandError(`“${path}” is a folder; this command takes files`)
  return new Uint8Array(readFileSync(path))
}

/**
 * Written beside and renamed: a failure leaves no half file, and the file that was there before stays.
 * @throws CommandError
 */
export function write(path: string, bytes: Uint8Array): void {
  const target = resolve(path)
  if (!existsSync(dirname(target))) throw new CommandError(`there is no folder “${dirname(target)}”`)
  const beside = join(dirname(target), `.morphene-${process.pid}`)
  try {
    writeFileSync(beside, bytes)
    renameSync(beside, target)
  } finally {
    rmSync(beside, { force: true })
  }
}

/** A document to work on, and where it comes from below the folder that was named. */
export interface Source {
  readonly path: string
  readonly below: string
}

/** Files as they are named, and all texts, presentations and drawings of folders. @throws CommandError */
export function sources(paths: readonly string[]): Source[] {
  if (paths.length === 0) throw new CommandError('which file? Name one, several, or a folder after the command')
  return paths.flatMap((path): Source[] => {
    if (!existsSync(path)) throw new CommandError(`there is no file or folder “${path}”`)
    if (!statSync(path).isDirectory()) return [{ path, below: basename(path) }]
    return documentsBelow(path, 0)
      .sort()
      .map(each => ({ path: each, below: relative(path, each) }))
  })
}

function documentsBelow(folder: string, depth: number): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry => {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) return depth < 20 && !entry.name.startsWith('.') ? documentsBelow(path, depth + 1) : []
    return /\.o[dt][tpg]$/i.test(entry.name) ? [path] : []
  })
}

/**
 * Where results go: one file for one, a folder for several, in which they lie as their sources do.
 * @throws CommandError
 */
export function target(out: string, source: Source, several: boolean): string {
  if (!several) {
    if (existsSync(out) && statSync(out).isDirectory()) return join(out, source.below)
    return out
  }
  if (existsSync(out) && !statSync(out).isDirectory())
    throw new CommandError(`“${out}” is a file; several documents need a folder`)
  const path = join(out, source.below)
  mkdirSync(dirname(path), { recursive: true })
  return path
}
