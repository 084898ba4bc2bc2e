import { face, makeOdt, paragraphStyle } from '../tests/support/fixtures'

/** A generator of numbers in [0, 1) that gives the same ones every time (mulberry32). */
function numbers(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let value = Math.imul(state ^ (state >>> 15), 1 | state)
    value = (value + Math.imul(value ^ (value >>> 7), 61 | value)) ^ value
    return ((value ^ (value >>> 14)) >>> 0) / 4294967296
  }
}

const onsets = [
  'b',
  'br',
  'c',
  'ch',
  'd',
  'f',
  'fl',
  'g',
  'gr',
  'h',
  'l',
  'm',
  'n',
  'p',
  'pl',
  'r',
  's',
  'sh',
  'st',
  't',
  'tr',
  'v',
  'w',
  '',
]
const cores = ['a', 'e', 'i', 'o', 'u', 'ai', 'ea', 'ou']
const codas = ['', 'n', 'r', 's', 't', 'l', 'nd', 'st', 'm', 'ck']

/** Paragraphs of made-up words: `words` in all, from a list of 24,000 distinct ones used by Zipf's law. */
export function benchParagraphs(words: number): string[] {
  const random = numbers(7)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const distinct = new Set<string>()
  while (distinct.size < 24_000) {
    let word = ''
    for (let syllables = 1 + Math.floor(random() * 3); syllables > 0; syllables--)
      word += pick(onsets) + pick(cores) + pick(codas)
    distinct.add(word)
  }
  const list = [...distinct].sort((a, b) => a.length - b.length)
  const paragraphs: string[] = []
  let left = words
  // Every word is used at least once, so that the text has as many distinct words as promised.
  const unused = [...list]
  while (left > 0) {
    const count = Math.min(left, 30 + Math.floor(random() * 90))
    const chosen: string[] = []
    for (let at = 0; at < count; at++)
      chosen.push(
        unused.length > 0 && random() < 0.2
          ? unused.pop()!
          : (list[Math.floor(list.length ** random()) - 1] ?? list[0]!),
      )
    const text = `${chosen.join(' ')}.`
    paragraphs.push(text.charAt(0).toUpperCase() + text.slice(1))
    left -= count
  }
  return paragraphs
}

/** The bench document: one paragraph style, justified, hyphenation off, in a family. */
export function benchDocument(paragraphs: readonly string[], family: string): Uint8Array {
  return makeOdt({
    stylesFaces: face(family, `'${family}'`),
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties style:font-name="${family}" ` +
      `fo:font-size="11pt" fo:language="en" fo:country="GB" style:letter-kerning="true"/>` +
      `</style:default-style>${paragraphStyle('Body', '', 'fo:text-align="justify" fo:line-height="14pt"')}`,
    stylesAutomatic:
      '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="21cm" ' +
      'fo:page-height="29.7cm" fo:margin="2.5cm"/></style:page-layout>',
    body: paragraphs.map(text => `<text:p text:style-name="Body">${text}</text:p>`).join('\n'),
  })
}

/**
 * The same text formatted by hand from end to end, by so many automatic styles: sizes, weights and colours of some forty
 * voices, each with indents of its own.
 */
export function handMadeDocument(paragraphs: readonly string[], styles: number): Uint8Array {
  const voices = 40
  const automatic = Array.from({ length: styles }, (_, at) => {
    const voice = at % voices
    return paragraphStyle(
      `P${at + 1}`,
      `style:font-name="Spectral" fo:font-size="${8 + (voice % 10)}pt"${voice % 3 === 0 ? ' fo:font-weight="bold"' : ''}` +
        ` fo:color="#${((voice % 4) * 4).toString(16)}02030"`,
      `fo:margin-left="${(Math.floor(at / voices) % 25) * 2}pt" fo:text-align="justify"`,
    )
  }).join('')
  return makeOdt({
    faces: face('Spectral', 'Spectral'),
    stylesFaces: face('Spectral', 'Spectral'),
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
      `fo:font-size="11pt" fo:language="en" fo:country="GB"/></style:default-style>${paragraphStyle('Standard')}`,
    automatic: `${automatic}<style:style style:name="T1" style:family="text"><style:text-properties fo:font-style="italic"/></style:style>`,
    stylesAutomatic:
      '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="21cm" ' +
      'fo:page-height="29.7cm" fo:margin="2.5cm"/></style:page-layout>',
    body: paragraphs
      .map((text, at) => {
        const cut = text.indexOf(' ', 20)
        const words =
          cut < 0
            ? text
            : `${text.slice(0, cut)} <text:span text:style-name="T1">${text.slice(cut + 1, cut + 9)}</text:span>${text.slice(cut + 9)}`
        return `<text:p text:style-name="P${(at % styles) + 1}">${words}</text:p>`
      })
      .join('\n'),
  })
}
