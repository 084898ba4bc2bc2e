import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { FaceRecord } from '../../core/font/face'
import { Library } from '../../core/font/library'
import { readFace } from '../../core/font/read'
import { contentHash, fontFiles, projectFolder, readFontFile, type FontFile } from './files'

/** A face that ships, with the file it is in. */
export interface ShippedFace {
  readonly face: FaceRecord
  readonly path: string
}

interface Index {
  readonly made: string
  readonly faces: readonly ShippedFace[]
}

/** What reads and measures faces. Classes and searches are worked out of measures, and are not among it. */
const measuring = ['read.ts', 'face.ts', 'measure'] as const

/** The code that reads and measures faces, as one hash: a changed rule makes every face be measured anew. */
export function measuringCode(folder = join(projectFolder(), 'core', 'font')): string {
  const below = (path: string): string[] =>
    statSync(join(folder, path)).isDirectory()
      ? readdirSync(join(folder, path))
          .sort()
          .flatMap(name => below(join(path, name)))
      : [path]
  const sources = measuring.flatMap(below).map(path => `${path}\n${readFileSync(join(folder, path), 'utf8')}`)
  return contentHash(new TextEncoder().encode(sources.join('\n')))
}

const stamp = (files: readonly FontFile[]) =>
  contentHash(
    new TextEncoder().encode(
      `${measuringCode()} ${files.map(file => `${file.path} ${file.size} ${file.changed}`).join('\n')}`,
    ),
  )

/** Reads and measures all shipped faces, or takes them from the index of an earlier start. */
export function shippedFaces(report: (done: number, all: number) => void = () => {}): readonly ShippedFace[] {
  const files = fontFiles()
  const made = stamp(files)
  const folder = join(projectFolder(), '.morphene')
  const path = join(folder, 'faces.json')
  if (existsSync(path)) {
    try {
      const index = JSON.parse(readFileSync(path, 'utf8')) as Index
      if (index.made === made) return index.faces
    } catch {
      /* A damaged index is made anew. */
    }
  }
  const faces: ShippedFace[] = []
  const seen = new Set<string>()
  files.forEach((file, at) => {
    const bytes = readFontFile(file.path)
    const hash = contentHash(bytes)
    if (!seen.has(hash)) faces.push({ face: readFace(bytes, hash, file.source), path: file.path })
    seen.add(hash)
    report(at + 1, files.length)
  })
  mkdirSync(folder, { recursive: true })
  // Written beside and renamed: a second process never reads half an index.
  writeFileSync(`${path}.${process.pid}`, JSON.stringify({ made, faces } satisfies Index))
  renameSync(`${path}.${process.pid}`, path)
  return faces
}

/** The shipped faces as a library, and their files by hash. */
export function shippedLibrary(): {
  readonly library: Library
  readonly load: (hash: string) => Uint8Array | undefined
} {
  const faces = shippedFaces()
  const paths = new Map(faces.map(each => [each.face.hash, each.path]))
  return {
    library: new Library(faces.map(each => each.face)),
    load: hash => {
      const path = paths.get(hash)
      return path ? readFontFile(path) : undefined
    },
  }
}
