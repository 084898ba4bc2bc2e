import { z } from 'zod'
import { occurrencesOf } from '../census/occurrences'
import { partOf } from '../document/open'
import { paragraphsOf } from '../document/stories'
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

/** All paragraphs of a document, with their story. */
export function* paragraphsIn({ stories }: Pick<Reading, 'stories'>): Generator<{
  readonly paragraph: Paragraph
  readonly story: Story
}> {
  for (const story of stories) for (const paragraph of paragraphsOf(story.blocks)) yield { paragraph, story }
}

const keyOf = (part: string, node: number) => `${part}#${node}`

/** The stretches of text that a scope means. */
export function stretchesOf(reading: Reading, scope: TextScope): Stretch[] {
  const found: Stretch[] = []
  const put = (paragraph: Paragraph, story: Story, from = 0, to = Infinity) => {
    const { length } = paragraphText(paragraph)
    found.push({
      paragraph,
      role: story.role,
      from: Math.min(from, length),
      to: Math.min(to, length),
      whole: from <= 0 && to >= length,
    })
  }
  switch (scope.kind) {
    case 'document':
      for (const { paragraph, story } of paragraphsIn(reading)) if (story.role !== 'deletions') put(paragraph, story)
      break
    case 'story':
      for (const story of reading.stories) {
        const own = paragraphsOf(story.blocks)
        if (own.some(paragraph => paragraph.part === scope.part && paragraph.node === scope.node))
          for (const paragraph of own) put(paragraph, story)
      }
      break
    case 'style':
      for (const { paragraph, story } of paragraphsIn(reading)) {
        if (scope.family === 'paragraph') {
          if (reading.cascade.paragraph(paragraph, story.role).text.owner?.style.name === scope.name)
            put(paragraph, story)
          continue
        }
        for (const run of paragraphRuns(paragraph, reading.cascade, story.role).runs) {
          const { owner } = run.style
          if (owner?.style.family === 'text' && owner.style.name === scope.name)
            put(paragraph, story, run.start, run.end)
        }
      }
      break
    case 'voice': {
      for (const { paragraph, story, from, to } of occurrencesOf(reading, scope.key)) put(paragraph, story, from, to)
      break
    }
    case 'frame': {
      const part = partOf(reading.document, scope.part)
      for (const { paragraph, story } of paragraphsIn(reading)) {
        if (paragraph.part !== scope.part) continue
        for (let id = paragraph.node; id >= 0; id = part.node(id).parent)
          if (id === scope.node) {
            put(paragraph, story)
            break
          }
      }
      break
    }
    case 'loose-frames':
      for (const { paragraph, story } of paragraphsIn(reading)) {
        if (story.role === 'deletions' || (paragraph.place !== 'frame' && story.role !== 'page')) continue
        let holder = paragraph.holder
        while (holder && holder.kind !== 'frame') holder = holder.parent
        if (!holder) continue
        const { attributes } = partOf(reading.document, paragraph.part).element(holder.node)
        if (attributes['presentation:class'] === undefined && attributes['presentation:style-name'] === undefined)
          put(paragraph, story)
      }
      break
    case 'ranges': {
      const byKey = new Map(
        [...paragraphsIn(reading)].map(each => [keyOf(each.paragraph.part, each.paragraph.node), each]),
      )
      for (const range of scope.ranges) {
        const own = byKey.get(keyOf(range.part, range.node))
        if (!own) throw new PlanError('The selected text is no longer in the document. Nothing was changed.')
        put(own.paragraph, own.story, range.from, range.to)
      }
      break
    }
  }
  if (found.length === 0 && scope.kind !== 'document')
    throw new PlanError('There is no text that this is about. Nothing was changed.')
  return found
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
