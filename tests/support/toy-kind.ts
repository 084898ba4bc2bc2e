import { z } from 'zod'
import { paragraphsOf } from '../../core/document/stories'
import { oneByOne } from '../../core/change/kind'
import { registry, registryOf } from '../../core/change/registry'
import { paragraphText } from '../../core/style/runs'
import { replaceText } from '../../core/document/edit-text'

const shoutSchema = z.strictObject({ type: z.literal('shout'), sign: z.string().min(1).max(5) })

/** A kind that only tests know: puts a sign behind every paragraph of the body. */
export const shoutKind = oneByOne<z.infer<typeof shoutSchema>>({
  type: 'shout',
  schema: shoutSchema,
  most: 3,
  act(planner, { sign }) {
    const paragraphs = planner.reading.stories
      .filter(story => story.role === 'body')
      .flatMap(story => paragraphsOf(story.blocks))
      .filter(paragraph => paragraphText(paragraph) !== '')
    const included = paragraphs.filter(paragraph =>
      planner.row({
        key: { what: 'shout', part: paragraph.part, node: paragraph.node },
        stage: 'shout',
        optional: true,
        title: paragraphText(paragraph).slice(0, 40),
        before: 'said',
        after: 'shouted',
        places: [{ part: paragraph.part, node: paragraph.node }],
      }),
    )
    for (const paragraph of included) {
      const { length } = paragraphText(paragraph)
      replaceText(planner.change.on(paragraph.part), paragraph.node, length, length, sign)
    }
    return `Shout in ${included.length} places`
  },
  sentence: ({ sign }) => `Put “${sign}” behind every paragraph.`,
})

/** The desk's kinds, and the one that only tests know. */
export const toyRegistry = registryOf([...registry.kinds, shoutKind])
