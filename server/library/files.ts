import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { supplierFolders } from './supplier-stock'

/** A font file that ships with the desk or comes with the system packages it installs. */
export interface FontFile {
  readonly path: string
  readonly source: 'shipped' | 'system'
  readonly size: number
  readonly changed: number
}

/** The project's folder: the nearest one above this file that holds package.json. */
export function projectFolder(): string {
  if (process.env.MORPHENE_FOLDER) return process.env.MORPHENE_FOLDER
  let folder = dirname(fileURLToPath(import.meta.url))
  while (!existsSync(join(folder, 'core')) && folder !== dirname(folder)) folder = dirname(folder)
  return folder
}

/** Folders of Debian's fonts-liberation, fonts-dejavu-core and fonts-crosextra-carlito and -caladea. */
const systemFolders = [
  '/usr/share/fonts/truetype/liberation',
  '/usr/share/fonts/truetype/liberation2',
  '/usr/share/fonts/truetype/dejavu',
  '/usr/share/fonts/truetype/crosextra',
]
const systemFaces = [
  /^Liberation(Sans|Serif|Mono|SansNarrow)-/,
  /^DejaVu(Sans|Serif|SansMono)(-(Bold|Oblique|BoldOblique|Italic|BoldItalic))?\./,
  /^(Carlito|Caladea)/,
]

function ttfBelow(folder: string, depth = 3): string[] {
  if (!existsSync(folder)) return []
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry => {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) return depth > 0 ? ttfBelow(path, depth - 1) : []
    return entry.name.endsWith('.ttf') ? [path] : []
  })
}

/** All font files of the library, in a stable order. */
export function fontFiles(): FontFile[] {
  const root = join(projectFolder(), 'node_modules', '@expo-google-fonts')
  const shipped = readdirSync(root)
    .filter(name => !supplierFolders.has(name))
    .flatMap(name => ttfBelow(join(root, name)))
    .map(path => ({ path, source: 'shipped' as const }))
  const system = systemFolders
    .flatMap(folder => ttfBelow(folder))
    .filter(path => systemFaces.some(each => each.test(path.slice(path.lastIndexOf('/') + 1))))
    .map(path => ({ path, source: 'system' as const }))
  return [...shipped, ...system]
    .sort((a, b) => a.path.localeCompare(b.path))
    .map(file => {
      const { size, mtimeMs } = statSync(file.path)
      return { ...file, size, changed: Math.round(mtimeMs) }
    })
}

/** SHA-256 in hexadecimal: the name of content everywhere. */
export function contentHash(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex')
}

/** A font file's bytes. */
export function readFontFile(path: string): Uint8Array {
  return new Uint8Array(readFileSync(path))
}
