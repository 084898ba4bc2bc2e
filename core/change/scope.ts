import { z } from 'zod'
import { occurrencesOf } from '../census/occurrences'
import { followsPlaceholder } from '../document/frame-verbs'
import { partOf } from '../document/open'
import { isWithin } from '../document/span-places'
import { paragraphsOf, standingParagraphs } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import type { Reading } from '../style/reading'
import { paragraphRuns, paragraphText } from '../style/runs'
import { PlanError } from './plan'

const name = z.string().min(1).max(500)
const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)

export const rangeSchema = z.strictObject({ part, node, from: offset, to: offset })

/** Which text a wish is about. */
export const textScopeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('document') }),
  /** The whole text that a paragraph stands in: a body with its frames, a header, a page. */
  z.strictObject({ kind: z.literal('story'), part, node }),
  z.strictObject({ kind: z.literal('style'), family: z.enum(['paragraph', 'text']), name }),
  /** All text of a voice of the census. */
  z.strictObject({ kind: z.literal('voice'), key: z.string().max(600) }),
  /** Everything in a frame or shape, and what is written into it later. */
  z.strictObject({ kind: z.literal('frame'), part, node }),
  /** All text frames and shapes that follow no placeholder of a master. */
  z.strictObject({ kind: z.literal('loose-frames') }),
  z.strictObject({ kind: z.literal('ranges'), ranges: z.array(rangeSchema).min(1).max(20_000) }),
])
export type TextScope = z.infer<typeof textScopeSchema>

/** A stretch of a paragraph that a wish is about. */
export interface Stretch {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly from: number
  readonly to: number
  readonly whole: boolean
}

const keyOf = (part: string, node: number) => `${part}#${node}`

/** Text that a scope means, to its end where none is said. */
interface Meant {
  readonly paragraph: Paragraph
  readonly story: Story
  readonly from?: number
  readonly to?: number
}

type Scope<K extends TextScope['kind']> = Extract<TextScope, { kind: K }>

/** All text that is not deleted. */
const inDocument = (reading: Reading): Meant[] => [...standingParagraphs(reading)]

/** The whole text that a paragraph stands in. */
const inStory = (reading: Reading, scope: Scope<'story'>): Meant[] =>
  reading.stories.flatMap(story => {
    const own = paragraphsOf(story.blocks)
    const holds = own.some(paragraph => paragraph.part === scope.part && paragraph.node === scope.node)
    return holds ? own.map(paragraph => ({ paragraph, story })) : []
  })

/** Paragraphs of a paragraph style, or the words of a character style. */
function inStyle(reading: Reading, scope: Scope<'style'>): Meant[] {
  return [...standingParagraphs(reading)].flatMap(({ paragraph, story }): Meant[] => {
    const { cascade } = reading
    if (scope.family === 'paragraph')
      return cascade.paragraph(paragraph, story.role).text.owner?.style.name === scope.name
        ? [{ paragraph, story }]
        : []
    return paragraphRuns(paragraph, cascade, story.role)
      .runs.filter(({ style: { owner } }) => owner?.style.family === 'text' && owner.style.name === scope.name)
      .map(run => ({ paragraph, story, from: run.start, to: run.end }))
  })
}

/** Everything in a frame. */
function inFrame(reading: Reading, scope: Scope<'frame'>): Meant[] {
  const part = partOf(reading.document, scope.part)
  return [...standingParagraphs(reading)].filter(
    ({ paragraph }) => paragraph.part === scope.part && isWithin(part, paragraph.node, scope.node),
  )
}

/** Text in frames and shapes that follow no placeholder. */
function inLooseFrames(reading: Reading): Meant[] {
  return [...standingParagraphs(reading)].filter(({ paragraph, story }) => {
    if (paragraph.place !== 'frame' && story.role !== 'page') return false
    let holder = paragraph.holder
    while (holder && holder.kind !== 'frame') holder = holder.parent
    return holder !== null && !followsPlaceholder(partOf(reading.document, paragraph.part), holder.node)
  })
}

/** @throws PlanError where one of them is gone */
function inRanges(reading: Reading, { ranges }: Scope<'ranges'>): Meant[] {
  const byKey = new Map(
    [...standingParagraphs(reading)].map(each => [keyOf(each.paragraph.part, each.paragraph.node), each]),
  )
  return ranges.map(({ part, node, from, to }) => {
    const own = byKey.get(keyOf(part, node))
    if (!own) throw new PlanError('The selected text is no longer in the document. Nothing was changed.')
    return { ...own, from, to }
  })
}

function meantBy(reading: Reading, scope: TextScope): Meant[] {
  switch (scope.kind) {
    case 'document':
      return inDocument(reading)
    case 'story':
      return inStory(reading, scope)
    case 'style':
      return inStyle(reading, scope)
    case 'voice':
      return occurrencesOf(reading, scope.key).map(({ paragraph, story, from, to }) => ({ paragraph, story, from, to }))
    case 'frame':
      return inFrame(reading, scope)
    case 'loose-frames':
      return inLooseFrames(reading)
    case 'ranges':
      return inRanges(reading, scope)
  }
}

/** The stretches of text that a scope means. @throws PlanError where there are none, but for a whole document */
export function stretchesOf(reading: Reading, scope: TextScope): Stretch[] {
  const meant = meantBy(reading, scope)
  if (meant.length === 0 && scope.kind !== 'document')
    throw new PlanError('There is no text that this is about. Nothing was changed.')
  return meant.map(({ paragraph, story, from = 0, to = Infinity }) => {
    const { length } = paragraphText(paragraph)
    return {
      paragraph,
      role: story.role,
      from: Math.min(from, length),
      to: Math.min(to, length),
      whole: from <= 0 && to >= length,
    }
  })
}

/** Where text is, in words: “everywhere”, “in the chosen text”. */
export function scopeWords(scope: TextScope, titleOf: (name: string) => string = name => name): string {
  switch (scope.kind) {
    case 'document':
      return 'everywhere'
    case 'story':
      return 'in one text'
    case 'style':
      return `in ${titleOf(scope.name)}`
    case 'voice':
      return 'in one voice'
    case 'frame':
      return 'in one frame'
    case 'loose-frames':
      return 'in all loose frames'
    case 'ranges':
      return 'in the chosen text'
  }
}

/** Why a scope is about one document alone; null where it can be looked for in any. */
export const boundTo = ({ kind }: TextScope): string | null =>
  kind === 'story' || kind === 'frame' || kind === 'ranges'
    ? 'A selection belongs to one document. Leave it out, or plan it there. Nothing was changed.'
    : null
