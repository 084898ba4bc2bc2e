import { contrast as ratioOf } from '../../colour/contrast'
import { lightnessReaching } from '../../colour/reach'
import { lchOf } from '../../colour/oklch'
import { groundsOf } from '../grounds'
import { check, type Found } from '../check'
import { stretchOf, type Subject } from '../subject'

/** The colour nearest in hue and chroma that reaches a contrast on a ground; null where none does. */
function nearestReaching(color: string, ground: string, wanted: number): string | null {
  const { hue, chroma } = lchOf(color)!
  const darker = lightnessReaching({ hue, chroma }, ground, wanted, 'darker')
  const lighter = lightnessReaching({ hue, chroma }, ground, wanted, 'lighter')
  const { lightness } = lchOf(color)!
  const found = [darker, lighter].filter(each => each !== null)
  found.sort((a, b) => Math.abs(a.lightness - lightness) - Math.abs(b.lightness - lightness))
  return found.find(each => ratioOf(each.color, ground) >= wanted)?.color ?? null
}

function* pale(subject: Subject, { enough, large }: Readonly<Record<'enough' | 'large', number>>): Generator<Found> {
  const pictured = new Set<number>()
  for (const { text, from, to, color, ground, size, weight } of groundsOf(subject)) {
    const isLarge = size >= 18 || (size >= 14 && weight >= 700)
    const wanted = subject.house?.limits.contrast ?? (isLarge ? large : enough)
    if (ground === null) {
      if (pictured.has(text.page)) continue
      pictured.add(text.page)
      yield {
        says: 'Text of this page stands on a picture: its contrast is to be looked at',
        at: { text, from, to },
        severity: 'note',
      }
      continue
    }
    const ratio = ratioOf(color, ground)
    if (ratio >= wanted - 1e-6) continue
    const better = nearestReaching(color, ground, wanted)
    yield {
      says: `${color} on ${ground}: ${Math.floor(ratio * 100) / 100} : 1, ${wanted} : 1 are asked for`,
      at: { text, from, to },
      severity: ratio < 3 && !isLarge ? 'error' : 'warning',
      ...(better === null ? {} : { repair: { looks: [{ at: stretchOf(text, from, to), change: { color: better } }] } }),
    }
  }
}

export const contrast = check({
  id: 'contrast',
  group: 'reading',
  title: 'Too little contrast',
  severity: 'warning',
  looksFor:
    'Text that is too near in lightness to the ground it stands on: shapes, boxes and pages below it, worst place.',
  source: 'WCAG 2.2, 1.4.3.',
  unseen: 'The colours of pictures and of gradients between their ends; they are told to be looked at.',
  limits: {
    enough: { title: 'Contrast at least', usual: 4.5, least: 1, most: 21 },
    large: { title: 'Large text at least', usual: 3, least: 1, most: 21 },
  },
  find: pale,
})
