import type { CoveredScript } from './covered-scripts'
import { hairlineOf, thickOf } from './bowls'
import { heightOf, lettersIn, type Letter, type Letters } from './letters'
import { median } from './outline'

/**
 * What the letters of one script say of a face, so that faces compare in that script: Latin heights say nothing of how
 * large Arabic looks. Thousandths of an em; 0 where the face or the script has none.
 */
export interface ScriptMeasures {
  /** What a reader takes for the size of its text: the x-height and what stands for it in other scripts. */
  readonly xHeight: number
  readonly capHeight: number
  readonly ascender: number
  /** How deep letters reach below the baseline, positive. */
  readonly descender: number
  /** Mean advance of a character of running text with spaces, as it is shaped. */
  readonly averageWidth: number
  /** Thick and thin of its strokes, wherever they run. */
  readonly stem: number
  readonly hairline: number
}

/** The letters that stand for a script. */
interface ScriptLetters {
  /** Letters whose height is that of its text, flat ones, so that overshoot does not count. */
  readonly plain: string
  /** Scripts of squares fill a box, whose height counts, wherever it stands beside the baseline. */
  readonly squared?: true
  readonly capitals?: string
  readonly tall: string
  readonly deep: string
  /** Letters whose strokes go through every direction. */
  readonly round: string
  /** Running text, so that widths are those of words: shaped, since letters join or change beside others. '' of Latin. */
  readonly text: string
}

/**
 * By the anatomy of each script: plain letters of Greek and Cyrillic have the x-height, of Hebrew the height of its square
 * letters, of Arabic that of its loops and teeth, of Devanagari the headline that letters hang from, of Thai that of
 * consonants without ascenders (Unicode 16, chapters 7, 9, 12 and 16 to 18, tell the letters; which are plain is a judgement).
 */
const lettersOfScript: Readonly<Record<CoveredScript, ScriptLetters>> = {
  Latin: { plain: 'xz', capitals: 'HI', tall: 'dl', deep: 'pq', round: 'oecs', text: '' },
  Greek: {
    plain: 'κνπυ',
    capitals: 'ΗΝΠ',
    tall: 'δλβ',
    deep: 'ρφμ',
    round: 'οεσρ',
    text: 'το πρωινό πλοίο φεύγει όσο ακόμη ανάβουν τα φανάρια',
  },
  Cyrillic: {
    plain: 'хнип',
    capitals: 'НИП',
    tall: 'бф',
    deep: 'рф',
    round: 'оесэ',
    text: 'ранковий паром відходить, поки ще горять ліхтарі',
  },
  Hebrew: { plain: 'החרת', tall: 'ל', deep: 'קןץ', round: 'סטמש', text: 'מעבורת הבוקר יוצאת כשהפנסים עוד דולקים' },
  Arabic: {
    plain: 'دصهو',
    tall: 'الك',
    deep: 'عرج',
    round: 'صهوف',
    text: 'تغادر عبارة الصباح والمصابيح ما تزال مضاءة',
  },
  Devanagari: {
    plain: 'कनमत',
    tall: 'ीै',
    deep: 'ुू',
    round: 'कवटठ',
    text: 'सुबह की नाव तब निकलती है जब बत्तियाँ अभी जल रही होती हैं',
  },
  Thai: { plain: 'นมบง', tall: 'ปฝฟ', deep: 'ฎฏญฐ', round: 'นมอว', text: 'เรือเช้าออกเมื่อไฟยังติดอยู่' },
  Han: { plain: '国田回', squared: true, tall: '中車', deep: '中車', round: '国永東', text: '早船在灯火未熄时离港' },
  Hiragana: {
    plain: 'のあは',
    squared: true,
    tall: 'しり',
    deep: 'しり',
    round: 'のあめ',
    text: 'あさのふねはまだあかりのともるうちにでる',
  },
  Katakana: {
    plain: 'ロコア',
    squared: true,
    tall: 'トリ',
    deep: 'トリ',
    round: 'ロアメ',
    text: 'アサノフネハマダアカリノトモルウチニデル',
  },
  Hangul: {
    plain: '한말글',
    squared: true,
    tall: '한빛',
    deep: '를글',
    round: '한어글',
    text: '아침 배는 등불이 켜져 있을 때 떠난다',
  },
}

/** What a script's width is measured on: a line of its words. */
export const sampleText = (script: CoveredScript): string => lettersOfScript[script].text

/**
 * Measures a face on one script's letters. Font units in, thousandths of an em out.
 * @param advance mean advance of a character of the script's running text, in font units
 * @returns null where the face lacks the script's plain letters
 */
export function measureScript(
  letters: Letters,
  script: CoveredScript,
  { unitsPerEm, advance }: { readonly unitsPerEm: number; readonly advance: number },
): ScriptMeasures | null {
  const own = lettersOfScript[script]
  const thousandths = (units: number | null) => {
    const value = ((units ?? 0) * 1000) / unitsPerEm
    return Number.isFinite(value) ? Math.round(value * 10) / 10 : 0
  }
  const of = (characters: string, what: (letter: Letter) => number) =>
    thousandths(median(lettersIn(letters, characters).map(what)))
  const top = ({ box }: Letter) => box.top
  const xHeight = of(own.plain, own.squared ? heightOf : top)
  if (xHeight <= 0) return null
  return {
    xHeight,
    capHeight: own.capitals ? of(own.capitals, top) : 0,
    ascender: of(own.tall, top),
    descender: Math.max(
      0,
      of(own.deep, ({ box }) => -box.bottom),
    ),
    averageWidth: thousandths(advance),
    stem: thousandths(thickOf(letters, own.round)),
    hairline: thousandths(hairlineOf(letters, own.round)),
  }
}
