import { applyAll } from '../core/document/apply'
import { slots } from '../core/document/font-attributes'
import { points } from '../core/document/lengths'
import { saveDocument } from '../core/document/open'
import { paragraphsOf } from '../core/document/stories'
import type { Paragraph, Story } from '../core/document/story-model'
import { changedLines } from '../core/change/effects'
import { registry } from '../core/change/registry'
import { DocumentSession } from '../core/session'
import type { TextStyle } from '../core/style/cascade'
import { sharedNames } from '../core/style/properties'
import { paragraphRuns } from '../core/style/runs'
import type { Page } from '../core/typeset/page'
import { numberParagraphs } from '../core/typeset/numbering'
import { writeElement } from '../core/xml/write'

/** What drawing up came to in one file. */
export interface DrawUpCheck {
  readonly before: number
  readonly after: number
  readonly styles: number
  readonly wordStyles: number
  readonly voices: number
  readonly wordVoices: number
  readonly linesChanged: number
  readonly milliseconds: number
  readonly written: Uint8Array
  readonly problems: readonly string[]
}

const number = (value: number) => Math.round(value * 1e4) / 1e4

/** Every type value of some text, whichever slot, as one string. */
function valuesOf({ effective }: TextStyle): string {
  return JSON.stringify([
    slots.map(slot => {
      const { font, size, weight, posture, language } = effective.slots[slot]
      // Letters of either case name one family (CSS Fonts 4, 2.1), as whoever looks for a face has it.
      return [
        font.family.toLowerCase(),
        font.styleName,
        font.charset,
        font.features,
        number(size),
        weight,
        posture,
        language,
      ]
    }),
    sharedNames.map(name => effective.shared[name]),
    leading.map(([name, initial]) => plain(effective.leading[name]) ?? initial),
  ])
}
const leading = [
  ['fo:line-height', 'normal'],
  ['style:line-height-at-least', '0pt'],
  ['style:line-spacing', '0pt'],
  ['style:font-independent-line-spacing', 'false'],
] as const

const plain = (value: string | undefined) => {
  const length = points(value)
  return length === null ? value : `${number(length)}pt`
}

/** What holds where a paragraph says nothing. */
const initial: Readonly<Record<string, string>> = {
  'fo:text-indent': '0pt',
  'fo:text-align': 'start',
  'style:auto-text-indent': 'false',
  'style:justify-single-word': 'false',
  'style:shadow': 'none',
  'fo:background-color': 'transparent',
  'style:contextual-spacing': 'false',
  'fo:keep-with-next': 'auto',
  'fo:keep-together': 'auto',
  'fo:break-before': 'auto',
  'fo:break-after': 'auto',
  'style:page-number': 'auto',
  ...Object.fromEntries(
    ['left', 'right', 'top', 'bottom'].flatMap(side => [
      [`fo:margin-${side}`, '0pt'],
      [`fo:padding-${side}`, '0pt'],
      [`fo:border-${side}`, 'none'],
    ]),
  ),
}
const ofLeading = new Set<string>(leading.map(([name]) => name))

function paragraphValues(properties: Readonly<Record<string, string>>): Record<string, string> {
  const values: Record<string, string> = {}
  for (const [name, value] of Object.entries(properties)) {
    if (name.startsWith('{') || ofLeading.has(name)) continue
    if (name === 'fo:margin' || name === 'fo:padding' || name === 'fo:border') {
      for (const side of ['left', 'right', 'top', 'bottom'])
        if (properties[`${name}-${side}`] === undefined) values[`${name}-${side}`] = plain(value)!
    } else values[name] = plain(value)!
  }
  for (const name of Object.keys(values)) if (values[name] === initial[name]) delete values[name]
  return values
}

interface Told {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly label: string
}

/** All paragraphs of a document by their nodes, with their labels. */
function told(session: DocumentSession): Map<string, Told> {
  const stories = session.reading.stories.filter(story => story.role !== 'deletions')
  const labels = numberParagraphs(stories, session.reading.cascade)
  return new Map(
    stories.flatMap(story =>
      paragraphsOf(story.blocks).map(paragraph => [
        `${paragraph.part}#${paragraph.node}`,
        { paragraph, role: story.role, label: labels.get(paragraph) ?? '' },
      ]),
    ),
  )
}

/** What hangs on a paragraph beside values: tab stops, drop cap, list, master page and rules. */
function hanging(session: DocumentSession, { paragraph, role, label }: Told): string {
  const { cascade } = session.reading
  const style = cascade.paragraph(paragraph, role)
  const markup = (node: typeof style.tabsNode, name: string) => {
    if (!node) return ''
    const { part } = cascade.scope(node.part)
    const element = part.first(part.element(node.node), name)
    return element ? writeElement(part, element.id) : ''
  }
  return JSON.stringify([
    markup(style.tabsNode, 'style:tab-stops'),
    markup(style.dropCapNode, 'style:drop-cap'),
    paragraph.list?.styleName ?? style.listStyle,
    paragraph.list?.level ?? 0,
    label,
    style.masterPage,
    style.text.ruled,
  ])
}

/** Text, character by character, with the values of each; the mark of paragraphs whose mark is seen. */
function characters(session: DocumentSession, { paragraph, role, label }: Told) {
  const { cascade } = session.reading
  const { text, runs } = paragraphRuns(paragraph, cascade, role)
  // What a frame stands in is not seen on it.
  const seen = runs.filter(run => run.inline.kind !== 'frame')
  const values = seen.map(run => ({ from: run.start, to: run.end, values: valuesOf(run.style) }))
  // Without words the mark is seen, by the height of its line; a label is set as the paragraph is.
  const mark =
    text === ''
      ? valuesOf(cascade.text(paragraph, paragraph.mark, role))
      : label !== ''
        ? valuesOf(cascade.paragraph(paragraph, role).text)
        : ''
  return { text, values, mark }
}

/** Where values of characters differ, as counts. */
function differences(one: ReturnType<typeof characters>, other: ReturnType<typeof characters>): number {
  const at = (of: typeof one, offset: number) => of.values.find(each => each.from <= offset && each.to > offset)?.values
  const places = new Set([...one.values, ...other.values].map(each => each.from))
  return [...places].filter(place => at(one, place) !== at(other, place)).length
}

const allVoices = (session: DocumentSession, words: boolean) => {
  const voices = new Set<string>()
  for (const own of told(session).values()) {
    const { cascade } = session.reading
    const { runs } = paragraphRuns(own.paragraph, cascade, own.role)
    const ownStyle = cascade.paragraph(own.paragraph, own.role).text
    const looks = runs.filter(run => (run.style !== ownStyle) === words).map(run => valuesOf(run.style))
    for (const look of looks) voices.add(look)
    if (!words && runs.length > 0 && looks.length === 0) voices.add(valuesOf(runs[0]!.style))
  }
  return voices.size
}

/** Where everything on a page lies, to a hundredth of a point. */
const placesOn = (page: Page | undefined): string =>
  JSON.stringify(page?.fragments.map(({ kind, x, y }) => [kind, Math.round(x * 100), Math.round(y * 100)]))

/**
 * Draws a text up at no tolerance: no line and no page changes, every character looks as it did in every slot, every
 * paragraph keeps its values and what hangs on it, what was written reads as what was planned, and undoing gives the file
 * back.
 */
export async function checkDrawUp(bytes: Uint8Array, session: DocumentSession): Promise<DrawUpCheck> {
  const problems: string[] = []
  const settledBefore = session.detail.census.settled
  const began = performance.now()
  const request = registry.schema.parse({ wishes: [{ type: 'draw-up' }] })
  const { plan, after } = registry.plan(session, request, { effects: false })
  const milliseconds = performance.now() - began
  const written = saveDocument(after.document)
  const again = await DocumentSession.start(written, session.typesetter)
  const linesChanged = changedLines(session.composition, after.composition)
  if (linesChanged > 0) problems.push(`${linesChanged} lines are set otherwise`)
  const moved = session.composition.pages.filter(
    (page, at) => placesOn(page) !== placesOn(after.composition.pages[at]!),
  )
  if (moved.length > 0)
    problems.push(`something lies elsewhere on ${moved.length} pages, the first ${moved[0]!.index + 1}`)
  if (after.composition.pages.length !== session.composition.pages.length)
    problems.push(`${session.composition.pages.length} pages become ${after.composition.pages.length}`)
  if (again.composition.pages.length !== after.composition.pages.length)
    problems.push('what was written has other pages')
  const [was, is] = [told(session), told(after)]
  const complaints = new Map<string, string[]>()
  const complain = (what: string, where: string) => complaints.set(what, [...(complaints.get(what) ?? []), where])
  for (const [key, one] of was) {
    const other = is.get(key)
    if (!other) {
      complain('paragraphs are gone', key)
      continue
    }
    const [before, now] = [characters(session, one), characters(after, other)]
    if (before.text !== now.text) complain('text changed', key)
    if (differences(before, now) > 0) complain('characters look otherwise', `${key} ${before.text.slice(0, 30)}`)
    if (before.mark !== now.mark && (before.mark === '' || now.mark === '' || before.mark !== now.mark))
      complain('marks look otherwise', key)
    const values = (of: DocumentSession, at: Told) =>
      JSON.stringify(
        Object.entries(paragraphValues(of.reading.cascade.paragraph(at.paragraph, at.role).properties)).sort(),
      )
    const [a, b] = [values(session, one), values(after, other)]
    if (a !== b) complain('paragraphs have other values', `${key} ${a} -> ${b}`)
    const [h, i] = [hanging(session, one), hanging(after, other)]
    if (h !== i) complain('lists, tabs or pages differ', `${key} ${h} -> ${i}`)
  }
  for (const [what, where] of complaints) problems.push(`${where.length} ${what}: ${where.slice(0, 3).join('; ')}`)
  const { census } = again.detail
  if (census.settled < 0.99) problems.push(`only ${(census.settled * 100).toFixed(2)} % are settled`)
  const applied = applyAll(session.document, plan.operations)
  if (Buffer.compare(saveDocument(applied.document), written) !== 0)
    problems.push('the operations do not give what was planned')
  if (Buffer.compare(saveDocument(applyAll(applied.document, applied.inverse).document), bytes) !== 0)
    problems.push('undoing does not give the file back')
  return {
    before: settledBefore,
    after: census.settled,
    styles: plan.made.filter(each => each.family === 'paragraph').length,
    wordStyles: plan.made.filter(each => each.family === 'text').length,
    voices: allVoices(session, false),
    wordVoices: allVoices(session, true),
    linesChanged,
    milliseconds,
    written,
    problems,
  }
}
