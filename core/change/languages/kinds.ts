import { z } from 'zod'
import { oneByOne, type Kind } from '../kind'
import { PlanError } from '../plan'
import { showAll, showAlone, splitFrames } from './languages'

/** Takes text of a language or character style out of its frames, into frames of its own. */
const splitSchema = z.strictObject({
  type: z.literal('split'),
  apart: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('language'), language: z.string().max(40) }),
    z.strictObject({ kind: z.literal('style'), name: z.string().min(1).max(500) }),
  ]),
})

/** Hides text in other languages than one; with null all is shown again. */
const showSchema = z.strictObject({ type: z.literal('show'), language: z.string().min(1).max(40).nullable() })

export type SplitWish = z.infer<typeof splitSchema>
export type ShowWish = z.infer<typeof showSchema>

export const splitKind = oneByOne<SplitWish>({
  type: 'split',
  schema: splitSchema,
  most: 50,
  act(planner, { apart }) {
    splitFrames(planner, apart)
    return apart.kind === 'language'
      ? `Split text in ${apart.language} into frames of its own`
      : `Split ${planner.style('text', apart.name).displayName} into frames of its own`
  },
  sentence: ({ apart }, titleOf = name => name) =>
    `Split text ${apart.kind === 'language' ? `in ${apart.language}` : `of ${titleOf(apart.name)}`} into frames of its own.`,
})

export const showKind = oneByOne<ShowWish>({
  type: 'show',
  schema: showSchema,
  most: 50,
  act(planner, { language }) {
    if (language !== null) {
      showAlone(planner, language)
      return `Show text in ${language} alone`
    }
    if (!showAll(planner)) throw new PlanError('No text is hidden so. Nothing was changed.')
    return 'Show text in all languages'
  },
  sentence: ({ language }) => (language === null ? 'Show text in all languages.' : `Show text in ${language} alone.`),
})

export const languageKinds: readonly Kind[] = [splitKind, showKind]
