import type { RecordedPlan } from '~~/shared/api'
import { counted } from '../desk/words'

/** What a plan would do to the pages, in a few words: “24 pages before and after; 3 paragraphs with other lines”. */
export function effectsWords({ effects }: Pick<RecordedPlan, 'effects'>): string {
  if (!effects) return ''
  const over = effects.overset.filter(frame => frame.lines > frame.linesBefore).length
  return [
    effects.pagesBefore === effects.pagesAfter
      ? `${counted(effects.pagesAfter, 'page')} before and after`
      : `${counted(effects.pagesBefore, 'page')} before, ${effects.pagesAfter} after`,
    effects.paragraphsChanged === 0
      ? 'no paragraph gains or loses a line'
      : `${counted(effects.paragraphsChanged, 'paragraph')} with other lines`,
    ...(over > 0 ? [`${counted(over, 'frame')} would run over`] : []),
  ].join('; ')
}

/** How much a plan would change: “1,204 characters in 17 places”. */
export const amountWords = ({ places, characters }: Pick<RecordedPlan, 'places' | 'characters'>): string =>
  `${characters > 0 ? `${counted(characters, 'character')} in ` : ''}${counted(places, 'place')}`
