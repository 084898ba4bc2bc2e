import { z } from 'zod'
import type { Edit } from '../../document/edits'
import type { OdfDocument } from '../../document/open'
import { isSpareParagraph } from '../../document/paragraph-verbs'
import { whyNotEdit } from '../../document/refusals'
import { paragraphsOf } from '../../document/stories'
import type { Paragraph } from '../../document/story-model'
import { paragraphRuns } from '../../style/runs'
import type { Reading } from '../../style/reading'

/** What can be put in order in the words of a document. */
export const cleanUpSchema = z.strictObject({
  emptyParagraphs: z.boolean(),
  doubleSpaces: z.boolean(),
  edgeSpaces: z.boolean(),
  tabIndents: z.boolean(),
  straightQuotes: z.boolean(),
})
export type Untidiness = z.infer<typeof cleanUpSchema>
export type CleanUpKind = keyof Untidiness

/** What each kind is called. */
export const cleanUpTitles: Readonly<Record<CleanUpKind, string>> = {
  emptyParagraphs: 'Double returns',
  doubleSpaces: 'Double spaces',
  edgeSpaces: 'Spaces at ends',
  tabIndents: 'Tabs used as indents',
  straightQuotes: 'Straight quotes',
}

/** One thing to put in order: where, what is there and what would be. `near` is the text around it. */
export interface UntidyPlace {
  readonly kind: CleanUpKind
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
  readonly before: string
  readonly after: string
  readonly near: string
}

export interface CleanUp {
  readonly places: readonly UntidyPlace[]
  /** There are more places than are put in order at once: they are found when these are done. */
  readonly more: boolean
  /** Places that the document does not let be changed, by the reason. */
  readonly left: readonly { readonly reason: string; readonly count: number }[]
}

/** As many places are put in order at once: what one change takes (editsSchema). */
const placeLimit = 5_000

/**
 * Quotation marks by language: outer and inner ones, as its typography has them (Unicode 16, chapter 6.2, and
 * national usage).
 */
export const quotes: Readonly<Record<string, readonly [string, string, string, string]>> = {
  en: ['“', '”', '‘', '’'],
  de: ['„', '“', '‚', '‘'],
  fr: ['«\u202F', '\u202F»', '‹\u202F', '\u202F›'],
  es: ['«', '»', '“', '”'],
  it: ['«', '»', '“', '”'],
  pt: ['“', '”', '‘', '’'],
  pl: ['„', '”', '‚', '’'],
  cs: ['„', '“', '‚', '‘'],
  nl: ['“', '”', '‘', '’'],
  sv: ['”', '”', '’', '’'],
  fi: ['”', '”', '’', '’'],
  da: ['»', '«', '›', '‹'],
  nb: ['«', '»', '‘', '’'],
  ru: ['«', '»', '„', '“'],
  hu: ['„', '”', '»', '«'],
}

interface Change {
  readonly kind: CleanUpKind
  readonly from: number
  readonly to: number
  readonly after: string
}

/** Straight quotation marks of a text with those that its language has in their place. */
export function quoteChanges(text: string, language: string): Change[] {
  const [open, close, innerOpen, innerClose] = quotes[language.split('-')[0] ?? ''] ?? quotes.en!
  const changes: Change[] = []
  for (const match of text.matchAll(/["']/g)) {
    const at = match.index
    const before = text[at - 1] ?? ''
    const after = text[at + 1] ?? ''
    // Feet and inches, minutes and seconds are no quotation marks.
    if (/\d/.test(before) && !/\p{L}/u.test(after)) continue
    const opens = before === '' || /[\s([{\u2013\u2014\u00AB\u201C\u201E\u2018/]/.test(before)
    // Inside a word, and before a year without its century, it is an apostrophe.
    const apostrophe =
      match[0] === "'" && ((/\p{L}/u.test(before) && /\p{L}/u.test(after)) || /^\d\ds?\b/.test(text.slice(at + 1)))
    const sign = apostrophe ? '’' : match[0] === '"' ? (opens ? open : close) : opens ? innerOpen : innerClose
    changes.push({ kind: 'straightQuotes', from: at, to: at + 1, after: sign })
  }
  return changes
}

function changesOf(text: string, wish: Untidiness, language: string, isCode: boolean): Change[] {
  // In code, quotation marks and spaces mean what they are.
  if (isCode) return []
  const changes: Change[] = []
  if (wish.edgeSpaces) {
    const lead = /^ +/.exec(text)
    const trail = / +$/.exec(text)
    if (lead && lead[0].length < text.length)
      changes.push({ kind: 'edgeSpaces', from: 0, to: lead[0].length, after: '' })
    if (trail) changes.push({ kind: 'edgeSpaces', from: trail.index, to: text.length, after: '' })
  }
  if (wish.tabIndents && text.trim() !== '') {
    const tabs = /^\t+/.exec(text)
    if (tabs) changes.push({ kind: 'tabIndents', from: 0, to: tabs[0].length, after: '' })
  }
  if (wish.doubleSpaces)
    for (const match of text.matchAll(/(?<=\S) {2,}(?=\S)/g))
      changes.push({ kind: 'doubleSpaces', from: match.index, to: match.index + match[0].length, after: ' ' })
  if (wish.straightQuotes) changes.push(...quoteChanges(text, language))
  return changes.sort((a, b) => a.from - b.from).filter((change, at, all) => at === 0 || change.from >= all[at - 1]!.to)
}

const isEmpty = (paragraph: Paragraph): boolean => paragraph.inlines.length === 0

/** What would be put in order, place by place. Nothing is changed. */
export function findUntidy(document: OdfDocument, reading: Reading, wish: Untidiness): CleanUp {
  const places: UntidyPlace[] = []
  const left = new Map<string, number>()
  let more = false
  for (const story of reading.stories) {
    if (story.role === 'deletions') continue
    const paragraphs = paragraphsOf(story.blocks)
    paragraphs.forEach((paragraph, index) => {
      if (more) return
      const part = document.parts.get(paragraph.part)!
      const put = (change: Change, before: string, near: string) => {
        const reason = whyNotEdit(document, part, paragraph.node)
        if (reason !== null) {
          left.set(reason, (left.get(reason) ?? 0) + 1)
          return
        }
        if (places.length >= placeLimit) {
          more = true
          return
        }
        places.push({
          kind: change.kind,
          part: paragraph.part,
          node: paragraph.node,
          from: change.from,
          to: change.to,
          before,
          after: change.after,
          near,
        })
      }
      if (isEmpty(paragraph)) {
        const style = reading.cascade.paragraph(paragraph, story.role)
        const breaks =
          style.properties['fo:break-before'] === 'page' ||
          style.properties['fo:break-after'] === 'page' ||
          style.masterPage !== null
        if (wish.emptyParagraphs && isSpareParagraph(part, paragraph.node) && !breaks) {
          const before = paragraphs[index - 1]
          put(
            { kind: 'emptyParagraphs', from: 0, to: 0, after: '' },
            '',
            before ? paragraphRuns(before, reading.cascade, story.role).text.slice(-40) : '',
          )
        }
        return
      }
      const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
      const language = runs[0]?.style.effective.slots.western.language ?? 'en'
      const isCode = runs.length > 0 && runs.every(run => run.style.effective.slots.western.font.pitch === 'fixed')
      for (const change of changesOf(text, wish, language, isCode))
        put(change, text.slice(change.from, change.to), text.slice(Math.max(0, change.from - 24), change.to + 24))
    })
  }
  return { places, more, left: [...left].map(([reason, count]) => ({ reason, count })) }
}

/** The edit that puts a place in order. */
export function cleanUpEdit(place: UntidyPlace): Edit {
  return place.kind === 'emptyParagraphs'
    ? { type: 'remove', part: place.part, node: place.node }
    : { type: 'text', part: place.part, node: place.node, from: place.from, to: place.to, text: place.after }
}
