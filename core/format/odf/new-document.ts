import { z } from 'zod'
import type { DocumentKind } from '../../document/open'
import { writtenText } from '../../document/white-space'
import { escapeXml, writePackage } from '../../package/new-package'
import type { ReadBlock, ReadRun, ReadText } from '../blocks'
import { document, encoded, face, paragraph, style, text } from './pieces'
import { pageLimits } from './page-sizes'

const millimetres = z.number().min(0).max(pageLimits.most)

/** A new document: its page and what stands in it. Lengths in millimetres. */
export const newDocumentSchema = z
  .strictObject({
    kind: z.enum(['text', 'presentation', 'drawing']),
    title: z.string().trim().max(300),
    language: z
      .string()
      .regex(/^[a-z]{2,3}(-[A-Z]{2})?$/)
      .default('en-GB'),
    page: z.strictObject({
      width: z.number().min(pageLimits.least).max(pageLimits.most),
      height: z.number().min(pageLimits.least).max(pageLimits.most),
    }),
    margins: z.strictObject({ top: millimetres, bottom: millimetres, left: millimetres, right: millimetres }),
    pages: z.int().min(1).max(200).default(1),
  })
  .refine(
    ({ page, margins }) =>
      page.width - margins.left - margins.right >= 10 && page.height - margins.top - margins.bottom >= 10,
    'The margins leave no room: at least 10 mm must stay between them.',
  )
export type NewDocument = z.infer<typeof newDocumentSchema>

export const mimetypeOf: Readonly<Record<DocumentKind, string>> = {
  text: 'application/vnd.oasis.opendocument.text',
  presentation: 'application/vnd.oasis.opendocument.presentation',
  drawing: 'application/vnd.oasis.opendocument.graphics',
}
export const extensionOf: Readonly<Record<DocumentKind, string>> = { text: 'odt', presentation: 'odp', drawing: 'odg' }

const mm = (value: number) => `${Math.round(value * 100) / 100}mm`

/**
 * Styles that texts begin with, by what they are for. Names are those that other readers of OpenDocument give to
 * the same.
 */
function textStyles(language: string): string {
  const [code, country = 'none'] = language.split('-')
  const heading = (level: number, size: number, before: number) =>
    style(
      `Heading ${level}`,
      'paragraph',
      paragraph(
        `fo:margin-top="${before}pt" fo:margin-bottom="${Math.round(before / 3)}pt" fo:line-height="${Math.round(size * 1.2)}pt"`,
      ) + text(`fo:font-size="${size}pt"`),
      'Heading',
      ` style:next-style-name="Text_20_body" style:default-outline-level="${level}" style:class="text"`,
    )
  return [
    `<style:default-style style:family="paragraph">${paragraph('style:tab-stop-distance="10mm"')}` +
      `${text(
        `style:font-name="Literata" fo:font-size="10.5pt" fo:language="${code}" ` + `fo:country="${country}"`,
      )}</style:default-style>`,
    style('Standard', 'paragraph', '', '', ' style:class="text"'),
    style(
      'Text body',
      'paragraph',
      paragraph('fo:margin-bottom="5pt" fo:line-height="14.5pt"'),
      'Standard',
      ' style:class="text"',
    ),
    style(
      'Heading',
      'paragraph',
      paragraph('fo:keep-with-next="always"') + text('style:font-name="Newsreader" fo:font-weight="normal"'),
      'Standard',
      ' style:next-style-name="Text_20_body" style:class="text"',
    ),
    style(
      'Title',
      'paragraph',
      paragraph('fo:margin-bottom="10pt" fo:line-height="32pt"') + text('fo:font-size="27pt"'),
      'Heading',
      ' style:next-style-name="Text_20_body" style:class="chapter"',
    ),
    heading(1, 21, 18),
    heading(2, 16, 14),
    heading(3, 13, 12),
    heading(4, 11.5, 10),
    heading(5, 10.5, 8),
    heading(6, 10.5, 8),
    style('List', 'paragraph', paragraph('fo:margin-bottom="2pt"'), 'Text body', ' style:class="list"'),
    style(
      'Quotations',
      'paragraph',
      paragraph('fo:margin-left="8mm" fo:margin-right="8mm"') + text('fo:font-style="italic"'),
      'Text body',
      ' style:class="html"',
    ),
    style(
      'Preformatted Text',
      'paragraph',
      paragraph('fo:margin-bottom="5pt"') + text('style:font-name="JetBrains Mono" fo:font-size="8.5pt"'),
      'Standard',
      ' style:class="html"',
    ),
    style(
      'Horizontal Line',
      'paragraph',
      paragraph(
        'fo:margin-bottom="8pt" fo:border-bottom="0.5pt solid #808080" fo:border-top="none" fo:border-left="none" fo:border-right="none"',
      ) + text('fo:font-size="4pt"'),
      'Standard',
      ' style:next-style-name="Text_20_body" style:class="html"',
    ),
    style('Table Contents', 'paragraph', '', 'Standard', ' style:class="extra"'),
    style('Table Heading', 'paragraph', text('fo:font-weight="bold"'), 'Table Contents', ' style:class="extra"'),
    style(
      'Strong Emphasis',
      'text',
      text('fo:font-weight="bold" style:font-weight-asian="bold" style:font-weight-complex="bold"'),
    ),
    style(
      'Emphasis',
      'text',
      text('fo:font-style="italic" style:font-style-asian="italic" style:font-style-complex="italic"'),
    ),
    style('Source Text', 'text', text('style:font-name="JetBrains Mono" fo:font-size="92%"')),
    style(
      'Internet link',
      'text',
      text(
        'fo:color="#1f6f6b" style:text-underline-style="solid" style:text-underline-width="auto" style:text-underline-color="font-color"',
      ),
    ),
    listStyle('Bullets', false),
    listStyle('Numbers', true),
  ].join('')
}

function listStyle(name: string, numbered: boolean): string {
  const level = (at: number) => {
    const label =
      `<style:list-level-properties text:list-level-position-and-space-mode="label-alignment">` +
      `<style:list-level-label-alignment text:label-followed-by="listtab" text:list-tab-stop-position="${at * 6}mm" ` +
      `fo:text-indent="-6mm" fo:margin-left="${at * 6}mm"/></style:list-level-properties>`
    return numbered
      ? `<text:list-level-style-number text:level="${at}" style:num-format="1" style:num-suffix=".">${label}</text:list-level-style-number>`
      : `<text:list-level-style-bullet text:level="${at}" text:bullet-char="` +
          `${at % 2 === 1 ? '•' : '–'}">${label}</text:list-level-style-bullet>`
  }
  return `<text:list-style style:name="${name}">${Array.from({ length: 10 }, (_, at) => level(at + 1)).join('')}</text:list-style>`
}

function writeRuns(runs: readonly ReadRun[]): string {
  const whole = runs.map(run => run.text).join('')
  let at = 0
  return runs
    .map(run => {
      const words = writtenText(run.text, whole.slice(0, at), whole.slice(at + run.text.length))
      at += run.text.length
      const names = [
        ...(run.code ? ['Source Text'] : []),
        ...(run.strong ? ['Strong Emphasis'] : []),
        ...(run.emphasis ? ['Emphasis'] : []),
      ]
      const spanned = names.reduceRight(
        (inner, name) => `<text:span text:style-name="${encoded(name)}">${inner}</text:span>`,
        words,
      )
      return run.href === null
        ? spanned
        : `<text:a xlink:type="simple" xlink:href="${escapeXml(run.href)}" text:style-name="Internet_20_link">${spanned}</text:a>`
    })
    .join('')
}

/** The blocks as the body of a text. */
export function writeBlocks(blocks: readonly ReadBlock[]): string {
  const out: string[] = []
  const open: { ordered: boolean }[] = []
  const close = (depth: number) => {
    while (open.length > depth) {
      out.push('</text:list-item></text:list>')
      open.pop()
    }
  }
  for (const block of blocks) {
    if (block.kind !== 'item') close(0)
    switch (block.kind) {
      case 'heading':
        out.push(
          `<text:h text:style-name="Heading_20_${Math.min(block.level, 6)}" ` +
            `text:outline-level="${block.level}">${writeRuns(block.runs)}</text:h>`,
        )
        break
      case 'paragraph':
        out.push(`<text:p text:style-name="Text_20_body">${writeRuns(block.runs)}</text:p>`)
        break
      case 'quote':
        out.push(`<text:p text:style-name="Quotations">${writeRuns(block.runs)}</text:p>`)
        break
      case 'code':
        for (const line of block.text.split('\n'))
          out.push(`<text:p text:style-name="Preformatted_20_Text">${writtenText(line)}</text:p>`)
        break
      case 'rule':
        out.push('<text:p text:style-name="Horizontal_20_Line"/>')
        break
      case 'item': {
        close(block.depth)
        if (open.length === block.depth && block.first) {
          // The other kind of list is another list.
          if (open[block.depth - 1]!.ordered === block.ordered) out.push('</text:list-item><text:list-item>')
          else close(block.depth - 1)
        }
        while (open.length < block.depth) {
          out.push(`<text:list text:style-name="${block.ordered ? 'Numbers' : 'Bullets'}"><text:list-item>`)
          open.push({ ordered: block.ordered })
        }
        out.push(`<text:p text:style-name="List">${writeRuns(block.runs)}</text:p>`)
        break
      }
      case 'table': {
        const columns = Math.max(...block.rows.map(row => row.length))
        const row = (cells: readonly (readonly ReadRun[])[], head: boolean) =>
          `<table:table-row>${Array.from(
            { length: columns },
            (_, at) =>
              `<table:table-cell table:style-name="cell"><text:p text:style-name="` +
              `${head ? 'Table_20_Heading' : 'Table_20_Contents'}">${writeRuns(cells[at] ?? [])}</text:p>` +
              `</table:table-cell>`,
          ).join('')}</table:table-row>`
        const heads = block.rows
          .slice(0, block.head)
          .map(cells => row(cells, true))
          .join('')
        const widths =
          block.widths?.map(share => `<table:table-column table:style-name="share${share}"/>`).join('') ??
          `<table:table-column table:number-columns-repeated="${columns}"/>`
        const body = block.rows
          .slice(block.head)
          .map(cells => row(cells, false))
          .join('')
        out.push(
          `<table:table>${widths}${heads ? `<table:table-header-rows>${heads}</table:table-header-rows>` : ''}${body}` +
            '</table:table><text:p text:style-name="Text_20_body"/>',
        )
        break
      }
    }
  }
  close(0)
  return out.join('') || '<text:p text:style-name="Text_20_body"/>'
}

const faces = face('Literata', 'roman') + face('Newsreader', 'roman') + face('JetBrains Mono', 'modern')
const graphicStyles = (language: string) => {
  const [code, country = 'none'] = language.split('-')
  return (
    `<style:default-style style:family="graphic"><style:graphic-properties draw:fill-color="#dfe7e6" ` +
    (`svg:stroke-color="#1b2430"/>${paragraph('style:tab-stop-distance="10mm"')}` +
      `${text(
        `style:font-name="Literata" fo:font-size="12pt" fo:language="${code}" ` + `fo:country="${country}"`,
      )}</style:default-style>`) +
    style('standard', 'graphic', '<style:graphic-properties draw:fill="none" draw:stroke="none" fo:padding="2mm"/>')
  )
}

/** Writes a new document. The same wish gives the same bytes. */
export function writeNewDocument(wish: NewDocument, blocks: readonly ReadBlock[] = []): Uint8Array {
  const { kind, page: size, margins, language } = wish
  const layout =
    `<style:page-layout style:name="pm1"><style:page-layout-properties fo:page-width="${mm(size.width)}" ` +
    `fo:page-height="${mm(size.height)}" fo:margin-top="${mm(margins.top)}" fo:margin-bottom="${mm(margins.bottom)}" ` +
    (`fo:margin-left="${mm(margins.left)}" fo:margin-right="${mm(margins.right)}" ` +
      `style:print-orientation="${size.width > size.height ? 'landscape' : 'portrait'}" `) +
    `style:num-format="1"/></style:page-layout>`
  const master =
    '<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="pm1"/></office:master-styles>'
  const cell =
    '<style:style style:name="cell" style:family="table-cell"><style:table-cell-properties ' +
    'fo:padding="1.2mm" fo:border="0.5pt solid #b9b3a3"/></style:style>'
  const shares = new Set(blocks.flatMap(block => (block.kind === 'table' ? (block.widths ?? []) : [])))
  const columns = [...shares].map(
    share =>
      `<style:style style:name="share${share}" style:family="table-column"><style:table-column-properties ` +
      `style:rel-column-width="${share}*"/></style:style>`,
  )
  const pages = Array.from(
    { length: wish.pages },
    (_, at) => `<draw:page draw:name="Page ${at + 1}" draw:master-page-name="Standard"/>`,
  ).join('')
  const body =
    kind === 'text'
      ? `<office:text>${writeBlocks(blocks)}</office:text>`
      : kind === 'presentation'
        ? `<office:presentation>${pages}</office:presentation>`
        : `<office:drawing>${pages}</office:drawing>`
  const content = document(
    'content',
    `<office:automatic-styles>${kind === 'text' ? cell + columns.join('') : ''}</office:automatic-styles>` +
      `<office:body>${body}</office:body>`,
    faces,
  )
  const styles = document(
    'styles',
    `<office:styles>${kind === 'text' ? textStyles(language) : graphicStyles(language)}</office:styles>` +
      `<office:automatic-styles>${layout}</office:automatic-styles>${master}`,
    faces,
  )
  const meta =
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ` +
    `xmlns:dc="http://purl.org/dc/elements/1.1/" office:version="1.3"><office:meta>` +
    `<dc:title>${escapeXml(wish.title)}</dc:title></office:meta></office:document-meta>`
  return writePackage(mimetypeOf[kind], [
    { path: 'content.xml', type: 'text/xml', content },
    { path: 'styles.xml', type: 'text/xml', content: styles },
    { path: 'meta.xml', type: 'text/xml', content: meta },
  ])
}

/** A text that was read of another format as an .odt with real styles, on A4. */
export function writeReadText(read: ReadText, fallbackTitle: string): Uint8Array {
  const language = /^[a-z]{2,3}(-[A-Z]{2})?$/.test(read.language) ? read.language : 'en-GB'
  return writeNewDocument(
    {
      kind: 'text',
      title: read.title || fallbackTitle,
      language,
      page: { width: 210, height: 297 },
      margins: { top: 25, bottom: 25, left: 25, right: 25 },
      pages: 1,
    },
    read.blocks,
  )
}
