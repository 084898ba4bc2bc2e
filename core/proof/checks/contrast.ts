import { contrast as ratioOf } from '../../colour/contrast'
import { lightnessReaching } from '../../colour/reach'
import { lchOf } from '../../colour/oklch'
import { groundsOf, type OnGround } from '../grounds'
import { betterLook, inCharacterStyle, styleSaying } from '../style-wish'
import { check, type Found, type Repair } from '../check'
import { stretchOf, type Subject } from '../subject'

/** The colour nearest in hue and chroma that reaches a contrast on the darkest and the lightest ground; null where none does. */
function nearestReaching(color: string, [darkest, lightest]: readonly [string, string], wanted: number): string | null {
  const { hue, chroma } = lchOf(color)!
  const darker = lightnessReaching({ hue, chroma }, darkest, wanted, 'darker')
  const lighter = lightnessReaching({ hue, chroma }, lightest, wanted, 'lighter')
  const { lightness } = lchOf(color)!
  const found = [darker, lighter].filter(each => each !== null)
  found.sort((a, b) => Math.abs(a.lightness - lightness) - Math.abs(b.lightness - lightness))
  const reaches = (own: string) => [darkest, lightest].every(ground => ratioOf(own, ground) >= wanted)
  return found.find(each => reaches(each.color))?.color ?? null
}

interface Pale extends OnGround {
  readonly ground: string
  readonly extremes: readonly [string, string]
  readonly ratio: number
  readonly wanted: number
  readonly isLarge: boolean
}

/** Whether text has too little contrast; null where it has enough. */
function paleness(found: OnGround, enough: number, large: number): Pale | null {
  const { color, ground, extremes, size, weight } = found
  if (ground === null || extremes === null) return null
  const isLarge = size >= 18 || (size >= 14 && weight >= 700)
  const wanted = isLarge ? large : enough
  const ratio = ratioOf(color, ground)
  return ratio < wanted - 1e-6 ? { ...found, ground, extremes, ratio, wanted, isLarge } : null
}

const said = { attribute: 'fo:color', on: 'text' } as const

/**
 * How many grounds text of a style and colour stands on: where there are several, a style cannot put it right. Looked for when
 * something pale is found: most documents have nothing.
 */
function groundsByStyle(all: readonly OnGround[]): (found: OnGround) => number {
  let grounds: Map<string, Set<string | null>> | null = null
  const keyOf = ({ text, layers, color }: OnGround) => {
    const style = styleSaying(text, layers, said)
    return style ? `${style.family}\n${style.name}\n${color}` : ''
  }
  const counted = () => {
    const counts = new Map<string, Set<string | null>>()
    for (const found of all) {
      const key = keyOf(found)
      counts.set(key, (counts.get(key) ?? new Set()).add(found.ground))
    }
    return counts
  }
  return found => (grounds ??= counted()).get(keyOf(found))!.size
}

function repairOf(subject: Subject, found: Pale, alone: boolean): Repair | undefined {
  const { text, from, to, layers, color, extremes, wanted } = found
  const better = nearestReaching(color, extremes, wanted)
  if (better === null) return undefined
  const local = { color: better }
  if (alone || styleSaying(text, layers, said) === null)
    return betterLook(text, from, to, layers, { ...said, value: better, local })
  // Of a style whose text stands on several grounds this one has a colour of its own.
  const title = `${lchOf(better)!.lightness > lchOf(color)!.lightness ? 'Lighter' : 'Darker'}, ${better}`
  return inCharacterStyle(subject, stretchOf(text, from, to), title, { 'fo:color': better }, local)
}

function* pale(
  subject: Subject,
  { enough, large }: Readonly<Record<'enough' | 'large', number>>,
): Generator<Found | null> {
  const asked = subject.house?.limits.contrast
  const all: OnGround[] = []
  for (const found of groundsOf(subject)) {
    all.push(found)
    if (all.length % 200 === 0) yield null
  }
  const groundsFor = groundsByStyle(all)
  const pictured = new Set<number>()
  for (const found of all) {
    const at = { text: found.text, from: found.from, to: found.to }
    if (found.ground === null && !pictured.has(found.text.page)) {
      pictured.add(found.text.page)
      yield { says: 'Text of this page stands on a picture that cannot be looked into', at, severity: 'note' }
    }
    const own = paleness(found, asked ?? enough, asked ?? large)
    if (!own) continue
    const repair = repairOf(subject, own, groundsFor(found) === 1)
    // No two places of a picture are alike: told by its ratio alone, they are one row.
    const [ground, steps] = own.on === 'plain' ? [own.ground, 100] : [`a ${own.on}`, 10]
    yield {
      says: `${own.color} on ${ground}: ${Math.floor(own.ratio * steps) / steps} : 1, ${own.wanted} : 1 are asked for`,
      at,
      severity: own.ratio < 3 && !own.isLarge ? 'error' : 'warning',
      ...(repair ? { repair } : {}),
    }
  }
}

export const contrast = check({
  id: 'contrast',
  group: 'reading',
  title: 'Too little contrast',
  severity: 'warning',
  looksFor:
    'Text that is too near in lightness to the ground it stands on: pictures, gradients, shapes, boxes and pages below it, ' +
    'worst place; of pictures and gradients what a tenth of the ground is nearer than.',
  source: 'WCAG 2.2, 1.4.3.',
  unseen: 'Pictures that are neither PNG nor JPEG, or have over 24 million pixels: they are told to be looked at.',
  limits: {
    enough: { title: 'Contrast at least', usual: 4.5, least: 1, most: 21 },
    large: { title: 'Large text at least', usual: 3, least: 1, most: 21 },
  },
  find: pale,
})
