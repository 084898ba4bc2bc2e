import { colorOf } from '../../census/matching'
import { check, type Found } from '../check'
import { seenRuns, wholeOf, type ProofText, type Subject } from '../subject'

/** How a role looks where it has most text. */
interface RoleLook {
  readonly text: ProofText
  readonly title: string
  readonly rank: number
  readonly size: number
  readonly weight: number
  readonly rest: string
}

const ranks: Readonly<Record<string, number>> = { display: 0, body: 9 }

/** How high a paragraph stands among titles, headings by level and body; null for all else. */
function rankOf({ paragraph, role }: ProofText): number | null {
  if (paragraph.heading !== null) return Math.min(paragraph.heading, 8)
  return role === null ? null : (ranks[role] ?? null)
}

function looksOf({ texts }: Subject): RoleLook[] {
  const looks = new Map<string, RoleLook>()
  for (const text of texts) {
    const rank = rankOf(text)
    if (rank === null || !text.owner || text.paragraph.place !== 'body') continue
    const [first] = seenRuns(text)
    if (!first) continue
    const key = `${rank}\n${text.owner.name}`
    if (looks.has(key)) continue
    const { shared, slots } = text.own.effective
    const values = slots[first.run.slot]
    looks.set(key, {
      text,
      title: text.owner.displayName,
      rank,
      size: values.size,
      weight: values.weight,
      rest: JSON.stringify([
        values.font.family,
        values.posture,
        colorOf(text.own),
        shared['fo:text-transform'],
        shared['fo:font-variant'],
      ]),
    })
  }
  return [...looks.values()].sort((a, b) => a.rank - b.rank)
}

function* alike(subject: Subject, { ratio, weight }: Readonly<Record<'ratio' | 'weight', number>>): Generator<Found> {
  const looks = looksOf(subject)
  for (const look of looks) {
    const next = looks.find(each => each.rank > look.rank)
    if (!next || look.rank === next.rank || look.rest !== next.rest) continue
    const larger = (Math.max(look.size, next.size) / Math.min(look.size, next.size)) * 100 - 100
    if (larger < ratio && Math.abs(look.weight - next.weight) < weight)
      yield {
        says:
          `“${look.title}” (${look.size} pt, weight ${look.weight}) and “${next.title}” (${next.size} pt, weight ` +
          `${next.weight}) are too alike to be told apart`,
        at: wholeOf(look.text),
      }
  }
}

export const alikeRoles = check({
  id: 'alike-roles',
  group: 'consistency',
  title: 'Neighbouring levels that look alike',
  severity: 'warning',
  looksFor:
    'A level and the next one below it that differ neither in face, colour or case nor enough in size or weight.',
  source: 'Sizes of printers’ scales are about 12 % apart (Bringhurst, The Elements of Typographic Style, 3.1).',
  stage: 'styles',
  unseen: 'Levels told apart by space, rules or numbers alone.',
  limits: {
    ratio: { title: 'Sizes differ by at least, %', usual: 10, least: 1, most: 100 },
    weight: { title: 'or weights by at least', usual: 150, least: 50, most: 800 },
  },
  find: alike,
})
