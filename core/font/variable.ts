import { Blob, Face } from 'harfbuzzjs'
import { samePlace, usualPlace, weightSteps, type AxisPlace } from './axes'
import type { FaceAxis, FaceRecord } from './face'
import { parseStyleName, styleName } from './face'
import { calledNames, namesOf, withNames, type FontNames } from './names'

/*
 * Variable files (OpenType 1.9, fvar): their axes, the places on them that the file names, and the faces that stand there. A
 * place becomes a file of its own, which everything that sets text takes as it takes any other.
 */

/** A face at a place on the axes of a variable file. */
export interface Instance {
  readonly style: string
  readonly place: AxisPlace
}

/** As many named places of a file are opened into faces: more than any design space that people choose from. */
export const instanceLimit = 80

/**
 * The faces that a variable file names, in its order, each place once; where it names none, one for each step of its weight.
 * Empty for a file of one form, and where the table is not sound.
 */
export function instancesIn(bytes: Uint8Array, { axes, slant }: Pick<FaceRecord, 'axes' | 'slant'>): Instance[] {
  if (axes.length === 0) return []
  const named = namedInstances(bytes, axes)
  if (named.length > 0) return named
  const weight = axes.find(each => each.tag === 'wght')
  if (!weight) return []
  return weightSteps
    .filter(step => step >= weight.least && step <= weight.most)
    .map(step => ({ style: styleName(step, slant === 'italic'), place: { ...usualPlace(axes), wght: step } }))
}

function namedInstances(bytes: Uint8Array, axes: readonly FaceAxis[]): Instance[] {
  const face = new Face(new Blob(bytes))
  const table = face.referenceTable('fvar')?.slice()
  if (!table || table.length < 16) return []
  const data = new DataView(table.buffer, table.byteOffset, table.byteLength)
  const [start, count, size] = [data.getUint16(4), data.getUint16(12), data.getUint16(14)]
  const tags = axisTags(data, start, table.length)
  const from = start + tags.length * 20
  if (tags.length !== axes.length || size < 4 + tags.length * 4) return []
  const found: Instance[] = []
  for (let index = 0; index < count && found.length < instanceLimit; index++) {
    const at = from + index * size
    if (at + 4 + tags.length * 4 > table.length) break
    const style = face.getName(data.getUint16(at), 'en').trim()
    const place = Object.fromEntries(tags.map((tag, axis) => [tag, data.getInt32(at + 4 + axis * 4) / 65536]))
    const isOnAxes = axes.every(each => place[each.tag]! >= each.least - 0.01 && place[each.tag]! <= each.most + 0.01)
    if (style !== '' && isOnAxes && !found.some(each => each.style === style || samePlace(each.place, place)))
      found.push({ style, place })
  }
  return found
}

function axisTags(data: DataView, start: number, length: number): string[] {
  const count = data.getUint16(8)
  if (start + count * 20 > length) return []
  return Array.from({ length: count }, (_, axis) =>
    String.fromCharCode(...[0, 1, 2, 3].map(at => data.getUint8(start + axis * 20 + at))),
  )
}

/**
 * What a variable file is called: some are named after one of their places, which is none of the family's (“Family Black” as a
 * family). A style at the end of the family's name goes where the file's own style does not say it.
 */
export function familyName(names: FontNames, instances: readonly Instance[]): string {
  const family = names.get(16) ?? names.get(1) ?? ''
  const tail = instances.find(each => each.style !== 'Regular' && family.endsWith(` ${each.style}`))
  return tail ? family.slice(0, -tail.style.length - 1) : family
}

/** The names of a face at a place of a variable file. What speaks of variations is none of its own (name id 25). */
function instanceNames(file: Uint8Array, family: string, style: string): Map<number, string> {
  const names = calledNames(namesOf(file), family, style)
  names.delete(21)
  names.delete(22)
  names.delete(25)
  names.set(3, `${names.get(6)!}, at a place of a variable file`)
  return names
}

/** The file of a face that was cut at a place, under its own names. */
export const namedCut = (cut: Uint8Array, variable: Uint8Array, family: string, style: string): Uint8Array =>
  withNames(cut, instanceNames(variable, family, style))

/** A variable file as a face of its family: what its usual place is called, and how heavy it is there. */
export function atUsualPlace(face: FaceRecord, family: string, instances: readonly Instance[]): FaceRecord {
  const usual = usualPlace(face.axes)
  const own = instances.find(each => samePlace(each.place, usual))
  const weight = usual['wght'] ?? face.weight
  const said = own ? parseStyleName(own.style) : null
  const slant = said ? (said.italic ? 'italic' : 'upright') : face.slant
  const style = own?.style ?? styleName(weight, slant === 'italic')
  return { ...face, family, style, fullName: `${family} ${style}`, weight: Math.round(weight), slant }
}
