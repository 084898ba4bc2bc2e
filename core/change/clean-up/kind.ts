import { z } from 'zod'
import { applyEdit } from '../../document/edits'
import { oneByOne } from '../kind'
import type { RowKey } from '../plan'
import { counted, seenSpaces } from '../words'
import { cleanUpEdit, cleanUpSchema, cleanUpTitles, findUntidy, type CleanUpKind, type UntidyPlace } from './clean-up'

const cleanUpWishSchema = cleanUpSchema.extend({ type: z.literal('clean-up') })
export type CleanUpWish = z.infer<typeof cleanUpWishSchema>

const keyOf = ({ kind, part, node, from }: UntidyPlace): RowKey => ({ what: 'untidy', kind, part, node, from })

/** Puts words in order: spaces, empty paragraphs, quotation marks. */
export const cleanUpKind = oneByOne<CleanUpWish>({
  type: 'clean-up',
  schema: cleanUpWishSchema,
  most: 5,
  act(planner, wish) {
    const { places, more, left } = findUntidy(planner.document, planner.reading, wish)
    const included = places.filter(place =>
      planner.row({
        key: keyOf(place),
        stage: place.kind,
        optional: true,
        title: cleanUpTitles[place.kind],
        characters: place.to - place.from,
        before:
          place.kind === 'emptyParagraphs' ? 'an empty paragraph' : `“${seenSpaces(place.before)}” in “${place.near}”`,
        after: place.after === '' ? 'gone' : `“${seenSpaces(place.after)}”`,
        places: [{ part: place.part, node: place.node, from: place.from, to: place.to }],
      }),
    )
    for (const { reason, count } of left) planner.note('text that may not be changed', reason, count)
    if (more) planner.note('more places', 'found when these are done')
    // Later places of a paragraph first, so that the others stay where they are.
    for (const place of included.reverse()) {
      const { operations } = applyEdit(planner.document, cleanUpEdit(place), planner.change.part(place.part).nextId)
      for (const operation of operations) planner.change.do(operation)
    }
    return `Put words in order in ${counted(included.length, 'place')}`
  },
  sentence(wish) {
    const asked = (Object.keys(cleanUpTitles) as CleanUpKind[]).filter(kind => wish[kind])
    return `Put words in order: ${asked.map(kind => cleanUpTitles[kind].toLowerCase()).join(', ')}.`
  },
})
