import type { Paragraph } from '../../document/story-model'
import { paragraphsOf } from '../../document/stories'
import type { FaceRecord } from '../../font/face'
import type { LicenceUse, UseRight } from '../../font/licence'
import { escapeXml } from '../../package/new-package'
import type { DocumentSession } from '../../session'
import type { Reading } from '../../style/reading'
import { paragraphText } from '../../style/runs'
import { readGeometries } from '../../typeset/geometry'
import { mainLanguage } from '../identity'
import type { Subsetter } from '../pdf/subset'
import { readStructure } from '../structure/read'
import { inPoints, type Unit } from './declarations'
import { WebFaces, type LeftFace } from './faces'
import { Markup } from './markup'
import { WebPictures } from './pictures'

/** A file among others, by its path from where they all lie. */
export interface WebFile {
  readonly path: string
  readonly type: string
  readonly bytes: Uint8Array
}

/** What is written for a browser or a reader of books, and what is not in it. */
export interface WebDocument {
  readonly files: readonly WebFile[]
  /** Faces that are named and not put beside the text, and why. */
  readonly faces: readonly LeftFace[]
  /** Pictures of kinds that are not shown. */
  readonly pictures: readonly string[]
}

export interface WebOptions {
  /** What it is called where the document has no title. */
  readonly name: string
  /** When it is said to have been made: milliseconds since 1970. */
  readonly made: number
  /** What has been agreed on a face, where that is known. */
  readonly rightOf?: (face: FaceRecord) => UseRight | undefined
}

/** What turns faces into files: by their hashes, cut down, and packed as WOFF2. */
export interface FaceWorks {
  readonly load: (hash: string) => Uint8Array | undefined
  readonly subsetter: Subsetter
  readonly pack: (file: Uint8Array) => Promise<Uint8Array>
}

export const utf8 = (text: string) => new TextEncoder().encode(text)

/** What holds for all text, whatever looks it has. */
export const commonCss = [
  'body { font-synthesis: none; overflow-wrap: break-word; }',
  'table { border-collapse: collapse; width: 100%; }',
  'a { color: inherit; }',
  'a.call { vertical-align: super; font-size: 0.6em; line-height: 0; text-decoration: none; }',
  'a.back { float: left; margin: 0 0.6em 0 0; text-decoration: none; }',
  'section.notes { margin: 2em 0 0; border-top: 1px solid; padding: 0.6em 0 0; }',
  'div.figure { margin: 0.6em 0; }',
  '.white { white-space: pre-wrap; }',
].join('\n')

/** What is written of a document as web text: how its parts are made, whoever puts them together. */
export function weave(
  session: DocumentSession,
  use: LicenceUse,
  options: WebOptions,
  unit: Unit,
  isBook: boolean,
  fileOf?: (target: Paragraph) => string,
) {
  const { composition, typesetter, reading } = session
  const structure = readStructure(reading)
  const language = mainLanguage(reading)
  const faces = new WebFaces(typesetter, use, options.rightOf)
  const pictures = new WebPictures(composition, typesetter.shaper, 'pictures/')
  const markup = new Markup(composition, structure, typesetter, faces, pictures, unit, language, isBook, fileOf)
  return { structure, language, faces, pictures, markup, title: session.document.title || options.name }
}

/**
 * A document as a page for browsers: index.html, style.css, faces and pictures beside them. Text, headings, lists, tables,
 * figures, notes and links stay what they are; what is made of pages (heads, feet, columns, where frames stand) does not.
 */
export async function writeSite(session: DocumentSession, works: FaceWorks, options: WebOptions): Promise<WebDocument> {
  const { structure, language, faces, pictures, markup, title } = weave(session, 'web page', options, inPoints, false)
  const body = markup.write(structure)
  const written = await faces.write('fonts/', works.load, works.subsetter, works.pack)
  const page = [...readGeometries(session.document).values()][0]!
  const width = page.width - page.margin.left - page.margin.right
  const css = [
    written.css,
    commonCss,
    `body { margin: 2em auto; padding: 0 1em; max-width: ${inPoints(width)}; color: #000; background: #fff; }`,
    'img { vertical-align: bottom; }',
    markup.sheet.css,
  ].join('\n')
  const lang = language ? ` lang="${escapeXml(language)}"` : ''
  const html =
    `<!DOCTYPE html>\n<html${lang}>\n<head>\n<meta charset="utf-8"/>\n` +
    `<meta name="viewport" content="width=device-width, initial-scale=1"/>\n<title>${escapeXml(title)}</title>\n` +
    `<link rel="stylesheet" href="style.css"/>\n</head>\n<body>\n${body}\n</body>\n</html>\n`
  return {
    files: [
      { path: 'index.html', type: 'text/html', bytes: utf8(html) },
      { path: 'style.css', type: 'text/css', bytes: utf8(`${css}\n`) },
      ...written.files.map(({ path, bytes }) => ({ path, bytes, type: 'font/woff2' })),
      ...pictures.files,
    ],
    faces: written.left,
    pictures: [...pictures.left],
  }
}

/** How large most text is set, in points: what all other sizes are told by where readers enlarge text. */
export function commonSize({ cascade, stories }: Reading): number {
  const counts = new Map<number, number>()
  for (const { role, blocks } of stories) {
    if (role !== 'body' && role !== 'page') continue
    for (const paragraph of paragraphsOf(blocks)) {
      const { size } = cascade.paragraph(paragraph, role).text.effective.slots.western
      counts.set(size, (counts.get(size) ?? 0) + paragraphText(paragraph).length)
    }
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 12
}
