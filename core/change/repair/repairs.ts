import { openParagraph } from '../../document/paragraph-spots'
import { growFrame } from '../../document/frame-verbs'
import { isWithin } from '../../document/span-places'
import { paragraphsOf } from '../../document/stories'
import type { Paragraph, Story } from '../../document/story-model'
import { points } from '../../document/lengths'
import { slotAttributes } from '../../style/properties'
import { plainNumber } from '../../style/describe'
import { paragraphRuns } from '../../style/runs'
import { setLocally, type LocalLook } from '../local-look'
import type { Planner } from '../planner'
import type { Repair } from './wish'

/** What a repair is called: “tracking −10”. */
export function repairTitle({ kind, amount }: Pick<Repair, 'kind' | 'amount'>): string {
  const signed = `${amount < 0 ? '−' : '+'}${plainNumber(Math.abs(amount))}`
  switch (kind) {
    case 'tracking':
      return `tracking ${signed}`
    case 'size':
      return `size ${plainNumber(amount)} %`
    case 'leading':
      return `leading ${plainNumber(amount)} %`
    case 'height':
      return `height ${signed} pt`
  }
}

/** The paragraphs that a repair is about: one, or all that stand in a frame. */
function paragraphsFor(planner: Planner, { part, node }: Repair): { paragraph: Paragraph; story: Story }[] {
  const found: { paragraph: Paragraph; story: Story }[] = []
  const parsed = planner.change.part(part)
  for (const story of planner.reading.stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      if (paragraph.part !== part) continue
      if (isWithin(parsed, paragraph.node, node)) found.push({ paragraph, story })
    }
  }
  return found
}

/** Local formatting that a repair comes to, on the document as the planner has read it. */
function looksOf(planner: Planner, repair: Repair): LocalLook[] {
  const { cascade } = planner.reading
  return paragraphsFor(planner, repair).flatMap(({ paragraph, story }): LocalLook[] => {
    const { length } = openParagraph(planner.change.part(paragraph.part), paragraph.node).text
    if (repair.kind === 'leading') {
      const { leading } = cascade.paragraph(paragraph, story.role).text.effective
      const stated = leading['fo:line-height']
      const absolute = points(stated)
      const share = stated?.endsWith('%') ? Number.parseFloat(stated) : 100
      return [
        {
          paragraph,
          from: 0,
          to: length,
          text: {},
          fonts: {},
          setting: {
            'fo:line-height':
              absolute !== null
                ? `${plainNumber((absolute * repair.amount) / 100)}pt`
                : `${plainNumber((share * repair.amount) / 100)}%`,
          },
        },
      ]
    }
    // Runs of one look each, so that what differs in the paragraph goes on to differ.
    return paragraphRuns(paragraph, cascade, story.role)
      .runs.filter(run => run.end > run.start)
      .map((run): LocalLook => {
        const { size } = run.style.effective.slots[run.slot]
        const tracking = points(run.style.effective.shared['fo:letter-spacing']) ?? 0
        const text =
          repair.kind === 'size'
            ? { [slotAttributes[run.slot].size]: `${plainNumber((size * repair.amount) / 100)}pt` }
            : { 'fo:letter-spacing': `${Math.round((tracking + (size * repair.amount) / 1000) * 1000) / 1000}pt` }
        return { paragraph, from: run.start, to: run.end, text, fonts: {}, setting: {} }
      })
  })
}

/** Carries one repair out on the document as it is now. False where its place is gone. */
export function applyRepair(planner: Planner, repair: Repair): boolean {
  if (!planner.change.document.parts.get(repair.part)?.find(repair.node)) return false
  planner.reread()
  if (repair.kind === 'height') growFrame(planner.change.on(repair.part), repair.node, repair.amount)
  else setLocally(planner, merged(looksOf(planner, repair)))
  planner.row({
    key: { what: 'repair', kind: repair.kind, part: repair.part, node: repair.node },
    stage: 'repair',
    title: `Repair: ${repairTitle(repair)}`,
    before: 'as it was',
    after: repairTitle(repair),
    places: [{ part: repair.part, node: repair.node }],
  })
  return true
}

/** Neighbours that get the same values become one stretch: fewer spans. */
function merged(looks: readonly LocalLook[]): LocalLook[] {
  const result: LocalLook[] = []
  for (const look of looks) {
    const last = result.at(-1)
    if (
      last &&
      last.paragraph === look.paragraph &&
      last.to === look.from &&
      JSON.stringify([last.text, last.setting]) === JSON.stringify([look.text, look.setting])
    )
      result[result.length - 1] = { ...last, to: look.to }
    else result.push(look)
  }
  return result
}
