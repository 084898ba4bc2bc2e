import { styleName, type FaceAxis, type FaceRecord } from './face'

/* Places on the axes of variable faces (OpenType 1.9, fvar): what they are called, and which there are. */

/** A place on the axes: values by tag. */
export type AxisPlace = Readonly<Record<string, number>>

/** What axes are called where OpenType registers them (OpenType 1.9, Design-Variation Axis Tag Registry). */
const registered: Readonly<Record<string, string>> = {
  wght: 'Weight',
  wdth: 'Width',
  opsz: 'Optical size',
  slnt: 'Slant',
  ital: 'Italic',
}
/** What an axis is called: by its registered name, else as its maker calls it, else by its tag. */
export const axisName = ({ tag, name }: Pick<FaceAxis, 'tag' | 'name'>): string => registered[tag] ?? name ?? tag

/** Steps of weight that a file has faces for where it names none itself. */
export const weightSteps = [100, 200, 300, 400, 500, 600, 700, 800, 900]

/** Where a variable file stands of itself. */
export const usualPlace = (axes: readonly FaceAxis[]): AxisPlace =>
  Object.fromEntries(axes.map(each => [each.tag, each.usual]))

/** Whether two places are one, as closely as a file says them (16.16). */
export const samePlace = (one: AxisPlace, other: AxisPlace): boolean =>
  Object.keys({ ...one, ...other }).every(tag => Math.abs((one[tag] ?? 0) - (other[tag] ?? 0)) < 0.01)

const plain = (value: number) => String(Math.round(value * 100) / 100)

/** A place on an axis in a family's name: “72pt” for an optical size, else what the axis is called with its value. */
const axisInName = ({ tag, name }: FaceAxis, value: number): string =>
  tag === 'opsz'
    ? `${plain(value)}pt`
    : `${registered[tag] ?? name ?? `${tag.charAt(0).toUpperCase()}${tag.slice(1).toLowerCase()}`} ${plain(value)}`

/**
 * What a face at a place would be called: by its weight in the family where nothing but its weight differs from the file's
 * usual place, else in a family of its own, since a family has one face of a weight and posture.
 */
export function calledAt(
  face: Pick<FaceRecord, 'family' | 'axes' | 'slant' | 'weight'>,
  place: AxisPlace,
): { readonly family: string; readonly style: string } {
  const others = face.axes.filter(({ tag, usual }) => tag !== 'wght' && Math.abs((place[tag] ?? usual) - usual) >= 0.01)
  const weight = Math.round(place['wght'] ?? face.weight)
  const italic = face.slant === 'italic'
  return {
    family: [face.family, ...others.map(axis => axisInName(axis, place[axis.tag]!))].join(' '),
    style: weightSteps.includes(weight) ? styleName(weight, italic) : `${weight}${italic ? ' Italic' : ''}`,
  }
}

/** Why a file has no face at a place; null where it has. */
export function whyNotAt(axes: readonly FaceAxis[], place: AxisPlace): string | null {
  if (axes.length === 0) return 'This face has no axes: it has one form.'
  for (const [tag, value] of Object.entries(place)) {
    const axis = axes.find(each => each.tag === tag)
    if (!axis) return `This face has no axis “${tag}”.`
    if (value < axis.least || value > axis.most)
      return `${axisName(axis)} goes from ${plain(axis.least)} to ${plain(axis.most)}.`
  }
  return null
}
