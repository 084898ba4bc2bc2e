import type { Paragraph } from '../../document/story-model'
import { escapeXml } from '../../package/new-package'
import { zipFiles } from '../../package/zip-files'
import type { DocumentSession } from '../../session'
import { paragraphText } from '../../style/runs'
import { identifierOf } from '../identity'
import { paragraphsIn } from '../structure/anchors'
import { readStructure, type StructureNode } from '../structure/read'
import { inRem } from '../web/declarations'
import {
  commonCss,
  commonSize,
  utf8,
  weave,
  type FaceWorks,
  type WebDocument,
  type WebFile,
  type WebOptions,
} from '../web/site'

/** A part of a book that is a file of its own. */
interface Chapter {
  readonly file: string
  readonly title: string
  readonly nodes: readonly StructureNode[]
}

/** An entry of the table of contents. */
interface Entry {
  readonly title: string
  readonly href: string
  readonly level: number
}

/** Headings down to this level are in the table of contents. */
const deepest = 3

/**
 * A document as a book (EPUB 3.3, reflowable): a file for each chapter, a table of contents, looks as classes with sizes that
 * grow with the reader's, faces beside it where their licences allow it in e-books.
 */
export async function writeEpub(
  session: DocumentSession,
  works: Pick<FaceWorks, 'load' | 'subsetter'>,
  options: WebOptions,
): Promise<WebDocument & { readonly bytes: Uint8Array }> {
  const structure = readStructure(session.reading)
  const chapters = chaptersOf(structure)
  const fileOf = new Map<Paragraph, string>()
  for (const { file, nodes } of chapters) for (const { paragraph } of paragraphsIn(nodes)) fileOf.set(paragraph, file)
  const woven = weave(
    session,
    'e-book',
    options,
    inRem(commonSize(session.reading)),
    true,
    target => fileOf.get(target) ?? '',
  )
  const { markup, faces, pictures, language, title } = woven
  const entries = entriesOf(chapters, paragraph => markup.idOf(paragraph))
  const texts = chapters.map((chapter): WebFile => {
    const body = markup.write(chapter.nodes)
    return {
      path: chapter.file,
      type: 'application/xhtml+xml',
      bytes: utf8(page(chapter.title || title, language, body)),
    }
  })
  const written = await faces.write('fonts/', works.load, works.subsetter, null)
  const files: WebFile[] = [
    {
      path: 'nav.xhtml',
      type: 'application/xhtml+xml',
      bytes: utf8(
        page(title, language, contents(entries.length > 0 ? entries : [{ title, href: chapters[0]!.file, level: 1 }])),
      ),
    },
    ...texts,
    { path: 'style.css', type: 'text/css', bytes: utf8([written.css, commonCss, markup.sheet.css, ''].join('\n')) },
    ...written.files.map(({ path, bytes }) => ({ path, bytes, type: path.endsWith('.otf') ? 'font/otf' : 'font/ttf' })),
    ...pictures.files,
  ]
  const about = { title, language: language || 'und', made: options.made, pictures: pictures.files.length > 0 }
  const all: WebFile[] = [
    { path: 'mimetype', type: '', bytes: utf8('application/epub+zip') },
    { path: 'META-INF/container.xml', type: '', bytes: utf8(container) },
    { path: 'EPUB/package.opf', type: '', bytes: utf8(packageOf(files, chapters, about)) },
    ...files.map(file => ({ ...file, path: `EPUB/${file.path}` })),
  ]
  // Its first entry says what it is, and is not packed (EPUB 3.3, 4.2.2).
  const bytes = zipFiles(
    all.map(file => [file.path, file.bytes]),
    options.made,
    'mimetype',
  )
  return { bytes, files, faces: written.left, pictures: [...pictures.left] }
}

/** Chapters begin at the headings of the highest level that there is, and at every page of a presentation. */
function chaptersOf(structure: readonly StructureNode[]): Chapter[] {
  const levels = structure.flatMap(node => (node.kind === 'paragraph' && node.level !== null ? [node.level] : []))
  const top = levels.length > 0 ? Math.min(...levels) : 0
  const chapters: { title: string; nodes: StructureNode[] }[] = []
  for (const node of structure) {
    const heads = node.kind === 'paragraph' && node.level === top && words(node.paragraph) !== ''
    const isPage = node.kind === 'section' && node.story !== null
    if (heads || isPage || chapters.length === 0)
      chapters.push({ title: heads ? words(node.paragraph) : isPage ? node.title : '', nodes: [] })
    chapters.at(-1)!.nodes.push(node)
  }
  if (chapters.length === 0) chapters.push({ title: '', nodes: [] })
  return chapters.map((chapter, index) => ({ ...chapter, file: `chapter-${String(index + 1).padStart(3, '0')}.xhtml` }))
}

const words = (paragraph: Paragraph) =>
  paragraphText(paragraph)
    .replace(/[\s\uFFFC]+/g, ' ')
    .trim()

function entriesOf(chapters: readonly Chapter[], idOf: (paragraph: Paragraph) => string): Entry[] {
  return chapters.flatMap(({ file, nodes }) =>
    [...paragraphsIn(nodes)].flatMap(({ paragraph, level }) =>
      level !== null && level <= deepest && words(paragraph) !== ''
        ? [{ title: words(paragraph), href: `${file}#${idOf(paragraph)}`, level }]
        : [],
    ),
  )
}

/** The table of contents, as deep as the headings stand (EPUB 3.3, 5.4). */
function contents(entries: readonly Entry[]): string {
  const out = ['<nav epub:type="toc" id="toc">', '<ol>']
  const open: number[] = []
  entries.forEach(({ title, href, level }, index) => {
    if (index > 0) {
      if (level > open.at(-1)!) out.push('<ol>')
      else {
        out.push('</li>')
        open.pop()
        while (open.length > 0 && open.at(-1)! >= level) {
          open.pop()
          out.push('</ol></li>')
        }
      }
    }
    open.push(level)
    out.push(`<li><a href="${escapeXml(href)}">${escapeXml(title)}</a>`)
  })
  for (let depth = open.length; depth > 0; depth--) out.push('</li></ol>')
  return [...out, '</nav>'].join('\n')
}

function page(title: string, language: string, body: string): string {
  const lang = language ? ` lang="${escapeXml(language)}" xml:lang="${escapeXml(language)}"` : ''
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE html>\n<html xmlns="http://www.w3.org/1999/xhtml" ` +
    `xmlns:epub="http://www.idpf.org/2007/ops"${lang}>\n<head>\n<meta charset="utf-8"/>\n<title>${escapeXml(title)}</title>\n` +
    `<link rel="stylesheet" type="text/css" href="style.css"/>\n</head>\n<body>\n${body}\n</body>\n</html>\n`
  )
}

const container =
  '<?xml version="1.0" encoding="UTF-8"?>\n<container xmlns="urn:oasis:names:tc:opendocument:xmlns:container" version="1.0">\n' +
  '<rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles>\n</container>\n'

/** The package document (EPUB 3.3, 5). */
function packageOf(
  files: readonly WebFile[],
  chapters: readonly Chapter[],
  about: { readonly title: string; readonly language: string; readonly made: number; readonly pictures: boolean },
): string {
  const id = (path: string) => `f-${path.replace(/[^A-Za-z0-9]+/g, '-')}`
  const items = files.map(
    ({ path, type }) =>
      `<item id="${id(path)}" href="${escapeXml(path)}" media-type="${type}"${path === 'nav.xhtml' ? ' properties="nav"' : ''}/>`,
  )
  const modes = ['textual', ...(about.pictures ? ['visual'] : [])]
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<package xmlns="http://www.idpf.org/2007/opf" version="3.0" ` +
    `unique-identifier="id" xml:lang="${escapeXml(about.language)}">\n` +
    `<metadata xmlns:dc="http://purl.org/dc/elements/1.1/">\n` +
    `<dc:identifier id="id">urn:uuid:${identifierOf(`${about.title}|${about.made}|${chapters.length}`)}</dc:identifier>\n` +
    `<dc:title>${escapeXml(about.title)}</dc:title>\n<dc:language>${escapeXml(about.language)}</dc:language>\n` +
    `<meta property="dcterms:modified">${new Date(about.made).toISOString().replace(/\.\d+Z/, 'Z')}</meta>\n` +
    `${modes.map(mode => `<meta property="schema:accessMode">${mode}</meta>\n`).join('')}` +
    `<meta property="schema:accessModeSufficient">${modes.join(',')}</meta>\n` +
    `<meta property="schema:accessibilityFeature">structuralNavigation</meta>\n` +
    `<meta property="schema:accessibilityFeature">tableOfContents</meta>\n` +
    `<meta property="schema:accessibilityHazard">none</meta>\n` +
    `</metadata>\n<manifest>\n${items.join('\n')}\n</manifest>\n<spine>\n` +
    `${chapters.map(({ file }) => `<itemref idref="${id(file)}"/>`).join('\n')}\n</spine>\n</package>\n`
  )
}
