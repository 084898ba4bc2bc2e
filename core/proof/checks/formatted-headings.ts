import { check, type Found } from '../check'
import { seenRuns, wholeOf, type ProofText, type Subject } from '../subject'

/** How all of a paragraph is set; null where it is mixed or empty. */
function lookOf(text: ProofText): { readonly size: number; readonly weight: number } | null {
  const runs = [...seenRuns(text)]
  const [first] = runs
  if (!first || runs.some(({ values }) => values.size !== first.values.size || values.weight !== first.values.weight))
    return null
  return first.values
}

/** Sizes of the headings that are ones, by level. */
function sizesByLevel({ texts }: Subject): Map<number, number> {
  const sizes = new Map<number, number>()
  for (const text of texts) {
    const level = text.paragraph.heading
    const look = level === null || sizes.has(level) ? null : lookOf(text)
    if (look) sizes.set(level!, look.size)
  }
  return sizes
}

/** The level whose headings are nearest in size; by how much it is larger than the body where there are none. */
function levelFor(size: number, sizes: ReadonlyMap<number, number>, body: number): number {
  const nearest = [...sizes].sort((a, b) => Math.abs(a[1] - size) - Math.abs(b[1] - size) || b[0] - a[0])[0]
  return nearest ? nearest[0] : size >= body * 1.6 ? 1 : size >= body * 1.25 ? 2 : 3
}

const ended = /[.,;:!?…]["”’»)]*$/

function* formatted(subject: Subject, { letters }: Readonly<Record<'letters', number>>): Generator<Found> {
  if (subject.medium !== 'text') return
  const body = subject.bodySize
  const sizes = sizesByLevel(subject)
  const { texts } = subject
  for (const [index, text] of texts.entries()) {
    const { paragraph, story, role } = text
    const words = text.text.trim()
    if (paragraph.heading !== null || paragraph.list || paragraph.place !== 'body' || story.role !== 'body') continue
    if (role === 'display' || role === 'lead' || role === 'caption' || text.isCode) continue
    if (words.length < 3 || words.length > letters || ended.test(words) || /\t/.test(words)) continue
    const look = lookOf(text)
    const next = texts.slice(index + 1).find(each => each.text.trim() !== '')
    const after = next && next.story === story && next.paragraph.place === 'body' ? lookOf(next) : null
    if (!look || !next || next.text.trim().length < words.length) continue
    const larger = look.size >= body * 1.12
    const bolder = look.weight >= 600 && (after === null || after.weight < 600) && look.size >= body * 0.98
    if (!larger && !bolder) continue
    const level = levelFor(look.size, sizes, body)
    yield {
      says: `Looks like a heading (${look.size} pt, weight ${look.weight}) and is a plain paragraph`,
      at: wholeOf(text),
      repair: { mends: [{ kind: 'level', part: paragraph.part, node: paragraph.node, level }] },
    }
  }
}

export const formattedHeadings = check({
  id: 'formatted-heading',
  group: 'consistency',
  title: 'Heading by its looks alone',
  severity: 'warning',
  looksFor: 'Short larger or bold paragraphs before longer text that are no headings to contents and screen readers.',
  source: 'WCAG 2.2, 1.3.1 (failure F2): what looks like a heading is one.',
  unseen: 'What it is for: a line of an address may be bold. Put right without changing its look.',
  limits: { letters: { title: 'Letters of a heading at most', usual: 90, least: 10, most: 300 } },
  find: formatted,
})
