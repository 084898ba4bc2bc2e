import { existsSync, readdirSync } from 'node:fs'
import type { Offer } from '../../shared/api'
import { join } from 'node:path'
import { parseStyleName } from '../../core/font/face'
import { nameKey } from '../../core/font/near-names'
import { projectFolder, readFontFile } from './files'
import { renamedFont } from './font-rename'

/*
 * A supplier of faces, simulated: it ships with the desk, sells nothing, and delivers into the library. Its prices are
 * made up; the licences are those of the files.
 */

interface Stock extends Omit<Offer, 'weights' | 'price'> {
  readonly folder: string
  readonly each: number
  readonly renamed: boolean
}

export const supplierName = 'Halyard Type Supply (simulated)'
const open = 'SIL Open Font License 1.1: use, embed and pass on'
const stock: readonly Stock[] = [
  {
    id: 'brannock',
    family: 'Brannock',
    folder: 'vollkorn',
    designer: 'Ferrier & Daughters',
    scripts: ['Latin', 'Greek', 'Cyrillic'],
    licence: 'Desk licence for five; embedding allowed',
    each: 18,
    renamed: true,
    said: 'A sturdy roman for menus and long evenings.',
  },
  {
    id: 'skerrow',
    family: 'Skerrow',
    folder: 'karla',
    designer: 'Northpier Letters',
    scripts: ['Latin'],
    licence: 'Desk licence for five; embedding allowed',
    each: 12,
    renamed: true,
    said: 'Out of print since the summer; old licences go on.',
  },
  {
    id: 'vollkorn',
    family: 'Vollkorn',
    folder: 'vollkorn',
    designer: 'as the file says',
    scripts: ['Latin', 'Greek', 'Cyrillic'],
    licence: open,
    each: 0,
    renamed: false,
    said: 'A text face with dark, hearty letters.',
  },
  {
    id: 'karla',
    family: 'Karla',
    folder: 'karla',
    designer: 'as the file says',
    scripts: ['Latin'],
    licence: open,
    each: 0,
    renamed: false,
    said: 'A plain sans with quirks.',
  },
  {
    id: 'gelasio',
    family: 'Gelasio',
    folder: 'gelasio',
    designer: 'as the file says',
    scripts: ['Latin'],
    licence: open,
    each: 0,
    renamed: false,
    said: 'A roman for screens and print, with the widths of a well-known one.',
  },
  {
    id: 'arvo',
    family: 'Arvo',
    folder: 'arvo',
    designer: 'as the file says',
    scripts: ['Latin'],
    licence: open,
    each: 0,
    renamed: false,
    said: 'A slab with even strokes.',
  },
]

interface StockFile {
  readonly style: string
  readonly path: string
}

function filesOf(folder: string): StockFile[] {
  const root = join(projectFolder(), 'node_modules', '@expo-google-fonts', folder)
  if (!existsSync(root)) return []
  return readdirSync(root, { withFileTypes: true })
    .filter(entry => entry.isDirectory() && /^\d{3}/.test(entry.name))
    .flatMap(entry => {
      const path = readdirSync(join(root, entry.name)).find(name => name.endsWith('.ttf'))
      const style = entry.name
        .replace(/^\d+/, '')
        .replace(/_/g, ' ')
        .replace(/^Regular Italic$/, 'Italic')
      return path && parseStyleName(style) ? [{ style, path: join(root, entry.name, path) }] : []
    })
}

/** What the supplier has; with a name, what goes by it first. */
export function offers(query: string): Offer[] {
  const key = nameKey(query)
  return stock
    .map(({ folder, each, renamed: _, ...offer }): Offer => {
      const weights = filesOf(folder).map(file => file.style)
      return { ...offer, weights, price: each * weights.length }
    })
    .filter(
      offer =>
        offer.weights.length > 0 &&
        (key === '' || nameKey(offer.family).includes(key) || key.includes(nameKey(offer.family))),
    )
}

/** The files of an offer as they are delivered, or null where there is no such offer. */
export function delivery(id: string): readonly Uint8Array[] | null {
  const offer = stock.find(each => each.id === id)
  return offer
    ? filesOf(offer.folder).map(file =>
        offer.renamed
          ? renamedFont(readFontFile(file.path), offer.family, file.style, offer.licence)
          : readFontFile(file.path),
      )
    : null
}
