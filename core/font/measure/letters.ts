import { boxOf, edgesOf, perimeter, polygonsOf, signedArea, type Box, type Edges, type Polygon } from './outline'

/** A letter as it is drawn: its contours, the box around them, the advance to the next. Font units. */
export interface Letter {
  readonly polygons: readonly Polygon[]
  readonly edges: Edges
  readonly box: Box
  readonly advance: number
  /** 1 where ink lies to the left of the way that contours run, -1 where it lies to the right. */
  readonly inkSide: 1 | -1
  /** Contours that go the same way lie over one another: not every edge is an edge of the ink. */
  readonly overlaps: boolean
  /** Area of ink, holes taken off. */
  readonly ink: number
}

/** What is measured on: letters by their character, each read once. Undefined for what the face lacks or leaves empty. */
export type Letters = (character: string) => Letter | undefined

/** How a face's glyphs are asked for. Outlines as path data of M, L, Q, C and Z in font units, y upward. */
export interface GlyphSource {
  readonly unitsPerEm: number
  outline(character: string): string
  advance(character: string): number
}

/** Reads letters of a face when they are asked for. */
export function lettersOf(source: GlyphSource): Letters {
  const known = new Map<string, Letter | undefined>()
  return character => {
    if (known.has(character)) return known.get(character)
    const letter = readLetter(source, character)
    known.set(character, letter)
    return letter
  }
}

/** Outlines of more edges, larger or longer than this are no letters: nothing is measured on them. Edges, ems, ems. */
const most = { edges: 5000, size: 12, length: 150 } as const

function readLetter(source: GlyphSource, character: string): Letter | undefined {
  const path = source.outline(character)
  if (path === '') return undefined
  const polygons = polygonsOf(path)
  const box = boxOf(polygons)
  if (!box || polygons.reduce((sum, polygon) => sum + polygon.length / 2, 0) > most.edges) return undefined
  const em = source.unitsPerEm
  if (Math.max(box.right - box.left, box.top - box.bottom) > em * most.size) return undefined
  if (!(polygons.reduce((sum, polygon) => sum + perimeter(polygon), 0) <= em * most.length)) return undefined
  let edges: Edges | undefined
  const areas = polygons.map(signedArea)
  const area = areas.reduce((sum, each) => sum + each, 0)
  const inkSide = area >= 0 ? 1 : -1
  const outer = polygons.filter((_, index) => areas[index]! * inkSide > 0)
  const boxes = outer.length < 2 ? [] : outer.flatMap(polygon => boxOf([polygon]) ?? [])
  return {
    polygons,
    get edges() {
      return (edges ??= edgesOf(polygons))
    },
    box,
    advance: source.advance(character),
    inkSide,
    overlaps: boxes.some((one, index) => boxes.slice(0, index).some(other => meet(one, other))),
    ink: Math.abs(area),
  }
}

/** Whether two boxes have a place in common. */
export const meet = (one: Box, other: Box): boolean =>
  one.left <= other.right && other.left <= one.right && one.bottom <= other.top && other.bottom <= one.top

/** Letters of a word that a face has. */
export const lettersIn = (letters: Letters, characters: string): Letter[] =>
  [...characters].flatMap(character => letters(character) ?? [])

export const heightOf = ({ box }: Letter): number => box.top - box.bottom
export const widthOf = ({ box }: Letter): number => box.right - box.left
