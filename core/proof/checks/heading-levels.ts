import { ownOutlineLevel } from '../../document/styles'
import type { Mend } from '../../change/mend/wish'
import { check, type Found } from '../check'
import { wholeOf, type ProofText, type Subject } from '../subject'

/** The style that headings of a level have: that of most of them, else the document’s own for it. */
function styleOfLevel({ texts, session }: Subject, level: number): string | undefined {
  const counts = new Map<string, number>()
  for (const { paragraph, owner } of texts)
    if (paragraph.heading === level && owner?.family === 'paragraph')
      counts.set(owner.name, (counts.get(owner.name) ?? 0) + 1)
  const most = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0]
  if (most !== undefined) return most
  const scope = [...session.reading.cascade.scopes.values()].at(-1)
  return [...(scope?.common.values() ?? [])].find(
    style => style.family === 'paragraph' && ownOutlineLevel(style) === level,
  )?.name
}

/** A heading with its level as it is written and as it ought to be, so that none is left out. */
interface Levelled {
  readonly text: ProofText
  readonly level: number
  readonly ought: number
  /** It skips a level itself, rather than standing under one that does. */
  readonly skips: boolean
  /** The written level that it stands under; 0 for none. */
  readonly under: number
}

function levelled(headings: readonly ProofText[]): Levelled[] {
  const top = Math.min(...headings.map(({ paragraph }) => paragraph.heading!))
  // Levels that are open above a heading, as they are written: its own is one deeper than they are many.
  const open: number[] = []
  return headings.map(text => {
    const level = text.paragraph.heading!
    while (open.length > 0 && open.at(-1)! >= level) open.pop()
    const under = open.at(-1) ?? 0
    open.push(level)
    return { text, level, ought: top - 1 + open.length, skips: under > 0 && level > under + 1, under }
  })
}

function* skipped(subject: Subject): Generator<Found> {
  const headings = subject.texts.filter(
    ({ paragraph, story, text }) => paragraph.heading !== null && story.role === 'body' && text.trim() !== '',
  )
  const all = levelled(headings)
  for (const [index, heading] of all.entries()) {
    if (!heading.skips) continue
    // What stands under it comes along.
    const end = all.findIndex((each, at) => at > index && each.level <= heading.level)
    const own = all.slice(index, end < 0 ? undefined : end)
    const mends = own
      .filter(({ level, ought }) => level !== ought)
      .map(({ text: { paragraph }, ought }): Mend => {
        const style = styleOfLevel(subject, ought)
        const { part, node } = paragraph
        return { kind: 'level', part, node, level: ought, ...(style === undefined ? {} : { style }) }
      })
    yield {
      says: `A heading of level ${heading.level} right under one of level ${heading.under}`,
      at: wholeOf(heading.text),
      repair: { mends },
    }
  }
}

export const headingLevels = check({
  id: 'heading-level',
  group: 'consistency',
  title: 'Heading that skips a level',
  severity: 'warning',
  looksFor:
    'Headings more than one level below the one they stand under, which screen readers and contents stumble over.',
  source: 'WCAG 2.2, 1.3.1 and technique G141: headings are nested by their levels.',
  unseen: 'Whether a level is left out on purpose. Frames and tables have no order of headings.',
  find: skipped,
})
