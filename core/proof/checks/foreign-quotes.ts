import { quotes } from '../../change/clean-up/clean-up'
import { check, type Found } from '../check'
import type { Subject, ProofText } from '../subject'

/** Languages in which other marks than the usual ones are right, too: their pairs. */
const alsoRight: Readonly<Record<string, string>> = {
  de: '»«›‹«»‹›',
  fr: '“”‘’',
  es: '‘’',
  it: '‘’',
  pl: '«»',
  cs: '»«›‹',
  nb: '„“',
  sv: '»',
  fi: '»',
  da: '„“‚‘',
  ru: '',
  pt: '«»',
  nl: '„‚',
  hu: '«',
  en: '',
}

const marks = /[“”„«»‹›‚]/g

/** A quotation in marks that another language has, from its opening sign to its closing one. */
function* quotationsOf({ text }: ProofText): Generator<{ readonly from: number; readonly to: number }> {
  for (const match of text.matchAll(/„[^„“”«»]{1,400}[“”]|“[^„“”«»]{1,400}”|«[^„“”«»]{1,400}»|»[^„“”«»]{1,400}«/g))
    yield { from: match.index, to: match.index + match[0].length }
}

function* foreign({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    const language = text.language.split('-')[0]!
    const own = quotes[language]
    if (!own || text.isCode || !marks.test(text.text)) continue
    marks.lastIndex = 0
    const right = own.join('') + (alsoRight[language] ?? '')
    for (const { from, to } of quotationsOf(text)) {
      const open = text.text[from]!
      const close = text.text[to - 1]!
      const first = own[0][0]!
      const last = own[1].at(-1)!
      const usual = open === first && close === last
      const other = open !== first && right.includes(open) && right.includes(close)
      if (usual || other) continue
      const { part, node } = text.paragraph
      const mend = (at: number, after: string) =>
        ({ kind: 'words', part, node, from: at, to: at + 1, before: text.text[at]!, after }) as const
      yield {
        says: `${open}…${close} in ${language}, which has ${own[0].trim()}…${own[1].trim()}`,
        at: { text, from, to },
        repair: { mends: [mend(from, own[0]), mend(to - 1, own[1])] },
      }
    }
  }
}

export const foreignQuotes = check({
  id: 'foreign-quote',
  group: 'words',
  title: 'Quotation marks of another language',
  severity: 'warning',
  looksFor: 'Quotations whose marks are not those of the language their text is tagged with.',
  source: 'Unicode 16, chapter 6.2 (Quotation Marks), and national usage.',
  unseen: 'Quotations over several paragraphs; languages without a known usage; a text tagged with the wrong language.',
  find: foreign,
})
