import { face, makeOdt, paragraphStyle } from './fixtures'

const sentence =
  'The launch leaves at seven and again at nine, and whoever misses both may walk along ' +
  'the shore to the next pier, where somebody will know. '

/** A text of so many pages of A5 in a face that nobody has, with a word of its own in it. */
export function longDocument(pages: number, word: string, family = 'Skerrow'): Uint8Array {
  return makeOdt({
    stylesFaces: face(family),
    faces: face(family),
    styles: paragraphStyle('Body', `style:font-name="${family}" fo:font-size="11pt"`, 'fo:margin-bottom="0.2cm"'),
    stylesAutomatic:
      '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="14.8cm" ' +
      'fo:page-height="21cm" fo:margin="2cm"/></style:page-layout>',
    automatic: paragraphStyle('P1', '', 'fo:break-before="page"', ' style:parent-style-name="Body"'),
    body: Array.from(
      { length: pages },
      (_, page) =>
        `<text:p text:style-name="${page === 0 ? 'Body' : 'P1'}">${word}, page ${page + 1}. ${sentence.repeat(4)}</text:p>` +
        `<text:p text:style-name="Body">${sentence.repeat(5)}</text:p>`,
    ).join(''),
  })
}
