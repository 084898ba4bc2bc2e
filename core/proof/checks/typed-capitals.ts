import { check, type Found } from '../check'
import { stretchOf, type ProofText, type Subject } from '../subject'

/** Words in capitals that stand together: no figures alone, no short names. */
const shouted = /\p{Lu}[\p{Lu}\p{M}’'-]+(?:[\s,:;&–—/-]+(?:\p{Lu}[\p{Lu}\p{M}’'-]*|\d+))*/gu

/** The same words as a sentence has them: a capital at their beginning alone. */
function inSentence(words: string, language: string, begins: boolean): string {
  const lower = words.toLocaleLowerCase(language || undefined)
  return begins ? lower.replace(/\p{L}/u, first => first.toLocaleUpperCase(language || undefined)) : lower
}

function* stretches(
  { text, isCode }: ProofText,
  letters: number,
): Generator<{ from: number; to: number; words: string }> {
  if (isCode) return
  for (const match of text.matchAll(shouted)) {
    const words = match[0]
    const count = [...words.matchAll(/\p{Lu}/gu)].length
    const long = [...words.matchAll(/\p{Lu}{4,}/gu)].length
    if (count >= letters && long >= 2 && /\s/.test(words))
      yield { from: match.index, to: match.index + words.length, words }
  }
}

function* typed({ texts }: Subject, { letters }: Readonly<Record<'letters', number>>): Generator<Found> {
  for (const text of texts)
    for (const { from, to, words } of stretches(text, letters)) {
      const runs = text.runs.filter(run => run.start < to && run.end > from)
      // Capitals that a style makes of small letters are no typed ones, and small capitals are another thing.
      if (runs.some(run => run.style.effective.shared['fo:text-transform'] === 'uppercase')) continue
      const after = inSentence(words, text.language, !/[\p{L}\p{N},;] *$/u.test(text.text.slice(0, from)))
      const { part, node } = text.paragraph
      yield {
        says: `${words.split(/\s+/).length} words typed in capitals`,
        at: { text, from, to },
        ...(after.length === words.length
          ? {
              repair: {
                looks: [{ at: stretchOf(text, from, to), change: { case: 'uppercase' as const } }],
                mends: [{ kind: 'words' as const, part, node, from, to, before: words, after }],
              },
            }
          : {}),
      }
    }
}

export const typedCapitals = check({
  id: 'typed-capitals',
  group: 'words',
  title: 'Capitals that were typed',
  severity: 'warning',
  looksFor:
    'Titles and phrases typed in capitals, which cannot be set otherwise, are spelled out aloud and sort wrong.',
  source: 'Case is a property of text (ODF 1.4 part 3, fo:text-transform).',
  unseen: 'Names and nouns inside the phrase lose their capital; the look stays, since it is set in capitals then.',
  limits: { letters: { title: 'Letters at least', usual: 12, least: 4, most: 200 } },
  find: typed,
})
