import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { classify } from '../../core/font/classify'
import type { FaceRecord } from '../../core/font/face'
import type { CoveredScript } from '../../core/font/measure/covered-scripts'
import { compose, eachLines } from '../../core/typeset/compose'
import { readDocument } from '../../core/style/reading'
import { shippedFaces } from '../../server/library/shipped'
import { openOdt, paragraphStyle, typesetter } from './fixtures'
import { numbersFrom } from './seeded'

/**
 * Text of one language, in words that are put together anew: sentences of a ferry's timetable and its sights. Where browsers
 * go their own ways it has nothing to decide: no slash between letters, no bracket behind a quotation mark, no space before
 * signs that it may not be broken at (UAX #14: SY, LB13, LB15).
 */
interface Language {
  readonly language: string
  readonly script: CoveredScript
  readonly rightToLeft: boolean
  readonly slot: '' | 'asian' | 'complex'
  readonly joint: string
  readonly words: readonly string[]
}

const words = (text: string) => text.split(' ')
const latin = { script: 'Latin', rightToLeft: false, slot: '', joint: ' ' } as const
const languages: readonly Language[] = [
  {
    ...latin,
    language: 'en',
    words: words(
      'The morning ferry leaves at 7.30 sharp; well-known harbours, low-lying islands and a ' +
        '“quiet” bay (with tea-room) follow. AVA To Type’s office fly affine—slowly. Rates: ' +
        '12/24 crowns, 50 % off-season, e.g. for groups.',
    ),
  },
  {
    ...latin,
    language: 'de',
    words: words(
      'Die Frühfähre fährt täglich um 7.30 Uhr; Straßen, Häfen und ' +
        'Übernachtungs-möglichkeiten „am Wasser“ finden Sie auf S. 12–14. Fahrgäste mit Gepäck ' +
        'zahlen 50 % mehr, außer montags.',
    ),
  },
  {
    ...latin,
    language: 'fr',
    words: words(
      'Le bac du matin part à l’heure\u00a0; aujourd’hui, l’été «\u00a0plein\u00a0» d’îles, ' +
        'c’est-à-dire vingt-deux, attend les voyageurs. Où est-il\u00a0? Œuvres, naïveté, ça ' +
        'va\u00a0!',
    ),
  },
  {
    language: 'el',
    script: 'Greek',
    rightToLeft: false,
    slot: '',
    joint: ' ',
    words: words(
      'Το πρωινό πλοίο φεύγει στις επτά και μισή· νησιά, λιμάνια και ήσυχοι όρμοι ' +
        'ακολουθούν. Πού είναι το «παλιό» λιμάνι; Στα δυτικά.',
    ),
  },
  {
    language: 'ru',
    script: 'Cyrillic',
    rightToLeft: false,
    slot: '',
    joint: ' ',
    words: words(
      'Утренний паром отходит в 7.30 от северо-западного причала; острова, «тихие» бухты и ' +
        'маяки — по пути. Сколько стоит? 50 % днём.',
    ),
  },
  {
    language: 'he',
    script: 'Hebrew',
    rightToLeft: true,
    slot: 'complex',
    joint: ' ',
    words: words('המעבורת של הבוקר יוצאת בשעה שבע וחצי; איים, נמלים ומפרצים שקטים בדרך. איפה הנמל הישן? ' + 'במערב.'),
  },
  {
    language: 'ar',
    script: 'Arabic',
    rightToLeft: true,
    slot: 'complex',
    joint: ' ',
    words: words(
      'تغادر عبارة الصباح في السابعة والنصف، والجزر والموانئ والخلجان الهادئة على الطريق. ' +
        'أين الميناء القديم؟ في الغرب.',
    ),
  },
  {
    language: 'hi',
    script: 'Devanagari',
    rightToLeft: false,
    slot: 'complex',
    joint: ' ',
    words: words(
      'सुबह की नाव साढ़े सात बजे छूटती है, द्वीप, बंदरगाह और शांत खाड़ियाँ रास्ते में हैं। ' +
        'पुराना बंदरगाह कहाँ है? पश्चिम में, क्षितिज के पास।',
    ),
  },
  {
    language: 'ja',
    script: 'Hiragana',
    rightToLeft: false,
    slot: 'asian',
    joint: '',
    words: words(
      '朝の船は 毎日七時半に 港を出ます。 静かな入り江と 島々を めぐり、 「古い港」は どこですか？ 西にあります。 料金は（大人） 千円です。',
    ),
  },
]

/** A paragraph to be set in both: in a face that has all its signs, in a measure in points. */
export interface TrialParagraph {
  readonly language: string
  readonly slot: Language['slot']
  readonly rightToLeft: boolean
  readonly text: string
  readonly face: { readonly hash: string; readonly family: string; readonly path: string }
  readonly width: number
}
/** A line: the place in the text where it begins, and its width in points without the space at its end. */
export interface TrialLine {
  readonly start: number
  readonly width: number
}

const size = 12
/** Measures are less than the page of the fixtures: 8 cm, in points. */
const pageMeasure = (8 * 72) / 2.54

/**
 * Hands that change their letters by those that came up before, however far apart: nothing says whether a new line begins that
 * anew, as browsers have it, or goes on from the line before, as here.
 */
const recallsLetters = (face: FaceRecord) =>
  face.features.includes('calt') && classify(face.measures).class === 'script'

/** So many paragraphs of all languages in turn, in several faces and measures; the same ones every time. */
export function trialParagraphs(count: number): readonly TrialParagraph[] {
  const random = numbersFrom(11)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const has = (ranges: readonly number[], code: number) =>
    ranges.some((from, at) => at % 2 === 0 && code >= from && code <= ranges[at + 1]!)
  const faces = new Map(
    languages.map(each => {
      const signs = [...new Set([...each.words.join('')].map(sign => sign.codePointAt(0)!)), 0x20]
      const fit = shippedFaces().filter(
        ({ face }) =>
          face.weight === 400 &&
          face.slant === 'upright' &&
          !recallsLetters(face) &&
          signs.every(code => has(face.ranges, code)),
      )
      return [each.language, fit] as const
    }),
  )
  return Array.from({ length: count }, (_, index): TrialParagraph => {
    const { language, slot, rightToLeft, words: list, joint } = languages[index % languages.length]!
    const { face, path } = pick(faces.get(language)!)
    const text = Array.from({ length: joint === '' ? 14 : 28 }, () => pick(list)).join(joint)
    const width = Math.round(130 + random() * 90)
    return { language, slot, rightToLeft, text, face: { hash: face.hash, family: face.family, path }, width }
  })
}

/** How Morphene breaks it, every line taking what fits. */
export function ourLines({ language, slot, rightToLeft, text, face, width }: TrialParagraph): readonly TrialLine[] {
  const all = (name: string, value: string) =>
    ['', '-asian', '-complex'].map(which => ` ${name}${which}="${value}"`).join('')
  const reading = readDocument(
    openOdt({
      automatic: paragraphStyle(
        'P',
        all('fo:font-size', `${size}pt`) +
          ` fo:font-family="${face.family}" style:font-family-asian="${face.family}" style:font-family-complex="${face.family}"` +
          ` fo:language="${slot === '' ? language : 'none'}" style:language-asian="${slot === 'asian' ? language : 'none'}"` +
          ` style:language-complex="${slot === 'complex' ? language : 'none'}" style:letter-kerning="true" fo:hyphenate="false"`,
        `fo:margin-${rightToLeft ? 'left' : 'right'}="${pageMeasure - width}pt" style:writing-mode="${rightToLeft ? 'rl-tb' : 'lr-tb'}" ` +
          `style:line-break="strict" style:punctuation-wrap="simple" style:text-autospace="none" fo:text-align="start"`,
      ),
      body: `<text:p text:style-name="P">${text}</text:p>`,
    }),
  )
  const { pages } = compose(reading, typesetter, { totalFit: false })
  const lines: TrialLine[] = []
  for (const page of pages)
    eachLines(page, ({ layout, from, to }) => {
      for (let at = from; at < to; at++) lines.push({ start: layout.lines[at]!.start, width: layout.lines[at]!.width })
    })
  return lines
}

/** How Chromium breaks them, in the same faces. */
export async function chromiumLines(
  page: Page,
  paragraphs: readonly TrialParagraph[],
): Promise<readonly (readonly TrialLine[])[]> {
  const paths = [...new Set(paragraphs.map(each => each.face.path))]
  const rules = paths.map((_, at) => `@font-face { font-family: "f${at}"; src: url(http://faces.test/${at}) }`)
  await page.route('http://faces.test/**', route => {
    const at = Number(new URL(route.request().url()).pathname.slice(1))
    return route.fulfill({
      body: readFileSync(paths[at]!),
      contentType: 'font/ttf',
      headers: { 'access-control-allow-origin': '*' },
    })
  })
  const body = paragraphs.map(
    ({ language, rightToLeft, text, face, width }) =>
      `<p lang="${language}" dir="${rightToLeft ? 'rtl' : 'ltr'}" ` +
      `style="font-family: f${paths.indexOf(face.path)}; width: ${width}pt">${text}</p>`,
  )
  await page.setContent(
    `<!doctype html><meta charset="utf-8"><style>${rules.join('\n')} p { font-size: ${size}pt; line-height: 20pt; margin: 0 0 8pt; ` +
      `font-kerning: normal; text-rendering: geometricPrecision; line-break: strict; hyphens: manual; text-autospace: no-autospace }` +
      `</style><body>${body.join('')}`,
  )
  return page.evaluate(async count => {
    await Promise.all(Array.from({ length: count }, (_, at) => document.fonts.load(`12pt f${at}`)))
    const range = document.createRange()
    return [...document.querySelectorAll('p')].map(paragraph => {
      const node = paragraph.firstChild as Text
      const starts: number[] = []
      let last = Number.NEGATIVE_INFINITY
      for (let at = 0; at < node.length; at++) {
        if (node.data[at] === ' ') continue
        range.setStart(node, at)
        range.setEnd(node, at + 1)
        const box = range.getClientRects()[0]
        if (!box || box.top - last < 10) continue
        starts.push(at)
        last = box.top
      }
      return starts.map((start, index) => {
        const end = starts[index + 1] ?? node.length
        range.setStart(node, start)
        range.setEnd(node, start + node.data.slice(start, end).trimEnd().length)
        const boxes = [...range.getClientRects()]
        const left = Math.min(...boxes.map(box => box.left))
        return { start, width: (Math.max(...boxes.map(box => box.right)) - left) * 0.75 }
      })
    })
  }, paths.length)
}
