import { lookOf, paragraphLookOf, voiceWord, type Look } from '../../core/change/draw-up/look'
import { paragraphsOf } from '../../core/document/stories'
import type { DocumentSession } from '../../core/session'
import { paragraphRuns } from '../../core/style/runs'
import { numbersFrom } from './seeded'

/** All that can be seen of text, letter by letter and paragraph by paragraph. */
export const looksOf = (of: DocumentSession): string[] =>
  of.reading.stories.flatMap(story =>
    paragraphsOf(story.blocks).flatMap(paragraph => {
      const style = of.reading.cascade.paragraph(paragraph, story.role)
      const { runs } = paragraphRuns(paragraph, of.reading.cascade, story.role)
      // Text whose colour nobody named, and text that is said to have that of the window, is seen alike.
      const told = ({ 'fo:color': color, 'style:use-window-font-color': window, ...values }: Look) =>
        `${voiceWord(values)} ${window === 'true' ? '' : (color ?? '')}`
      return [
        told(paragraphLookOf(style.properties)),
        // An empty line is as high as its style says.
        ...(runs.length === 0 ? [told(lookOf(style.text.effective))] : []),
        ...runs
          .map(run => ({ from: run.start, look: told(lookOf(run.style.effective)) }))
          .filter((run, at, all) => run.look !== all[at - 1]?.look)
          .map(({ from, look }) => `${from} ${look}`),
      ]
    }),
  )

/** Values as styles say them, drawn by chance: few enough that looks come again. */
export function looksByChance(seed: number) {
  const random = numbersFrom(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const text = () =>
    [
      `fo:font-family="${pick(['Spectral', 'Jost', 'Literata'])}"`,
      `fo:font-size="${pick([9, 12, 20])}pt"`,
      `fo:color="${pick(['#1f6f6b', '#b4361e'])}"`,
    ]
      .filter(() => random() < 0.4)
      .join(' ')
  const paragraph = () => (random() < 0.3 ? `fo:text-align="${pick(['center', 'end'])}" fo:line-height="120%"` : '')
  return { random, pick, text, paragraph }
}
