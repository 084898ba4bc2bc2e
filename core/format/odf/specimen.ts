import { z } from 'zod'
import { measuresIn, type FaceRecord } from '../../font/face'
import { coveredScripts } from '../../font/measure/covered-scripts'
import { escapeXml, writePackage } from '../../package/new-package'
import { filler, fillerText } from '../filler'
import { mimetypeOf } from './new-document'
import { document, page, paragraph, style, text } from './pieces'

/** What a specimen shows: own words at steps of size, a script's filler at sizes for reading, at one size or one x-height. */
export const specimenSchema = z.strictObject({
  words: z.string().trim().min(1).max(200),
  /** Of the filler, and of the letters by which faces are made equally large. */
  script: z.enum(coveredScripts).default('Latin'),
  /** Several faces stand at one point size, or as large as the first looks. */
  equal: z.enum(['size', 'x-height']).default('size'),
  /** Points; what several faces stand at, or the middle one of the steps of one face. */
  size: z.number().min(4).max(200).default(24),
})
export type Specimen = z.infer<typeof specimenSchema>

/** A4 and its margins, in millimetres. */
const sheet = { width: 210, height: 297, margin: 18 } as const
const inside = sheet.width - 2 * sheet.margin
/** The length of the scale, in millimetres: what a ruler laid on the print must show. */
export const scaleLength = 100
/** Steps of size for one face, in points: those that type was cast in, from notes to titles. */
const steps = [6, 7, 8, 9, 10, 12, 14, 18, 24, 36, 48, 72] as const

const mm = (value: number) => `${Math.round(value * 1000) / 1000}mm`
/** A family's name as svg:font-family and fo:font-family take it (CSS 2.1, 15.3): in the marks that it does not hold itself. */
const quoted = (family: string) => (family.includes("'") ? `"${family}"` : `'${family}'`)
const asMm = (points: number) => (points * 25.4) / 72

/** Paragraph styles made as they are needed: what a face stands in at a size. */
class Sheet {
  private readonly styles = new Map<string, string>()
  private readonly shapes: string[] = []

  styleFor(face: FaceRecord | null, size: number, leading: number): string {
    const key = `${face?.hash ?? 'label'} ${size} ${leading}`
    const known = this.styles.get(key)
    if (known) return known.slice(0, known.indexOf(' '))
    const name = `S${this.styles.size + 1}`
    const family = face ? face.family : 'Instrument Sans'
    const values = ['', '-asian', '-complex']
      .map(
        slot =>
          ` ${slot === '' ? 'fo:font-family' : `style:font-family${slot}`}="${escapeXml(quoted(family))}"` +
          ` ${slot === '' ? 'fo:font-size' : `style:font-size${slot}`}="${size}pt"` +
          (face
            ? ` ${slot === '' ? 'fo:font-weight' : `style:font-weight${slot}`}="${face.weight}"` +
              ` ${slot === '' ? 'fo:font-style' : `style:font-style${slot}`}="${face.slant === 'italic' ? 'italic' : 'normal'}"` +
              ` style:font-style-name${slot}="${escapeXml(face.style)}"`
            : ''),
      )
      .join('')
    this.styles.set(
      key,
      `${name} ${style(
        name,
        'paragraph',
        paragraph(`fo:line-height="${leading}pt"`) +
          text(`${values.trim()} style:letter-kerning="true" fo:color="${face ? '#1b2430' : '#5b6470'}"`),
      )}`,
    )
    return name
  }

  /** A line of text, or several, whose frame begins at a place. Millimetres. */
  put(x: number, y: number, width: number, height: number, styleName: string, lines: readonly string[]): void {
    const paragraphs = lines.map(line => `<text:p text:style-name="${styleName}">${escapeXml(line)}</text:p>`).join('')
    this.shapes.push(
      `<draw:frame draw:style-name="plain" svg:x="${mm(x)}" svg:y="${mm(y)}" svg:width="${mm(width)}" svg:height="${mm(height)}">` +
        `<draw:text-box>${paragraphs}</draw:text-box></draw:frame>`,
    )
  }

  line(x1: number, y1: number, x2: number, y2: number): void {
    this.shapes.push(
      `<draw:line draw:style-name="stroke" svg:x1="${mm(x1)}" svg:y1="${mm(y1)}" svg:x2="${mm(x2)}" svg:y2="${mm(y2)}"/>`,
    )
  }

  /** A scale of 100 mm with a stroke at each, longer ones at tens: what proves that nothing was scaled on the way. */
  scale(x: number, y: number): void {
    this.line(x, y, x + scaleLength, y)
    for (let at = 0; at <= scaleLength; at++)
      this.line(x + at, y - (at % 10 === 0 ? 3.5 : at % 5 === 0 ? 2.4 : 1.5), x + at, y)
    const label = this.styleFor(null, 7, 9)
    for (let at = 0; at <= scaleLength; at += 10) this.put(x + at + 0.4, y - 7, 9, 3.5, label, [String(at)])
    this.put(x + scaleLength + 3, y - 4.2, 60, 4, label, [`${scaleLength} mm: it must measure so on paper`])
  }

  take(): string {
    return this.shapes.splice(0).join('')
  }
  get written(): string {
    return [...this.styles.values()].map(each => each.slice(each.indexOf(' ') + 1)).join('')
  }
}

/** The head of a sheet, and its scale at the foot. */
function frame(on: Sheet, title: string, note: string): void {
  on.put(sheet.margin, 12, inside, 7, on.styleFor(null, 12, 15), [title])
  on.put(sheet.margin, 17.5, inside, 5, on.styleFor(null, 8, 10), [note])
  on.line(sheet.margin, 24, sheet.width - sheet.margin, 24)
  on.scale(sheet.margin, sheet.height - 14)
}

/** Lowest place on a sheet that words may reach, in millimetres. */
const floor = sheet.height - 26

/** As many of the words as a line holds at a size, by the face's mean width; of a long first word what fits. */
function fitting(words: string, face: FaceRecord, size: number): string {
  const most = Math.max(
    1,
    Math.floor((inside * 72 * 1000) / 25.4 / (Math.max(face.measures.averageWidth, 100) * size * 1.08)),
  )
  if (words.length <= most) return words
  const end = words.lastIndexOf(' ', most)
  return end > 0 ? words.slice(0, end) : [...words].slice(0, most).join('')
}

/** Words at a size below one another, on as many sheets as they need; each with what it is in the margin. */
function lines(
  on: Sheet,
  rows: readonly { face: FaceRecord; size: number; said: string }[],
  words: string,
  title: string,
  note: string,
): string[] {
  const pages: string[] = []
  let y = 30
  frame(on, title, note)
  for (const { face, size, said } of rows) {
    const { lineAscent, lineDescent } = face.measures
    const leading = Math.ceil((size * Math.max(lineAscent + lineDescent, 1100)) / 1000)
    const height = asMm(leading) + 1
    if (y + height + 4 > floor && y > 30) {
      pages.push(on.take())
      frame(on, title, note)
      y = 30
    }
    on.put(sheet.margin, y, inside, 4, on.styleFor(null, 7, 9), [said])
    on.put(sheet.margin, y + 3.5, inside, height, on.styleFor(face, size, leading), [fitting(words, face, size)])
    y += height + 5
  }
  pages.push(on.take())
  return pages
}

function sizeOf(face: FaceRecord, first: FaceRecord, { equal, size, script }: Specimen): number {
  const [own, as] = [measuresIn(face, script)?.xHeight ?? 0, measuresIn(first, script)?.xHeight ?? 0]
  return equal === 'x-height' && own > 0 && as > 0 ? Math.round((size * as * 100) / own) / 100 : size
}

const faceTitle = (face: FaceRecord) => `${face.family} ${face.style}`

/** One face: its words at steps of size, then filler of a script at three sizes for reading. */
function ofOne(on: Sheet, face: FaceRecord, of: Specimen): string[] {
  const { xHeight, capHeight } = measuresIn(face, of.script) ?? face.measures
  const note = `x-height ${Math.round(xHeight)}, capitals ${Math.round(capHeight)}, in thousandths of an em; printed at 100 %`
  const rows = steps.map(size => ({ face, size, said: `${size} pt` }))
  const pages = lines(on, rows, of.words, faceTitle(face), note)
  frame(on, faceTitle(face), note)
  let y = 30
  const script = filler.some(each => each.script === of.script) ? of.script : 'Latin'
  for (const [size, leading] of [
    [8, 11],
    [10, 14],
    [12, 16.5],
  ] as const) {
    on.put(sheet.margin, y, inside, 4, on.styleFor(null, 7, 9), [`${size} pt on ${leading} pt`])
    // A line of about 66 letters, which is read with ease (Bringhurst, The Elements of Typographic Style, 2.1.2).
    const width = Math.min(inside, asMm((face.measures.averageWidth * size * 66) / 1000))
    const room = Math.floor(((66 * 72) / 25.4 / leading) * 66)
    const paragraphs = fillerText(script, 30).split('\n')
    let count = 0
    for (let letters = 0; count < paragraphs.length && letters + paragraphs[count]!.length + 66 < room; count++)
      letters += Math.ceil(paragraphs[count]!.length / 60) * 66
    on.put(sheet.margin, y + 4, width, 66, on.styleFor(face, size, leading), paragraphs.slice(0, Math.max(count, 1)))
    y += 77
  }
  pages.push(on.take())
  return pages
}

/**
 * A specimen as a drawing in OpenDocument, on sheets of A4: of one face its steps and running text, of several the same
 * words at one size or one x-height. Every sheet has a scale.
 * @param faces one to eight
 */
export function makeSpecimen(faces: readonly FaceRecord[], of: Specimen): Uint8Array {
  const [first] = faces
  if (!first) throw new RangeError('a specimen needs a face')
  const on = new Sheet()
  const pages =
    faces.length === 1
      ? ofOne(on, first, of)
      : lines(
          on,
          faces.map(face => {
            const size = sizeOf(face, first, of)
            return { face, size, said: `${faceTitle(face)}, ${size} pt` }
          }),
          of.words,
          `${faces.length} faces ${of.equal === 'x-height' ? 'at one x-height' : 'at one point size'}`,
          'printed at 100 %',
        )
  const content = document(
    'content',
    `<office:automatic-styles>${on.written}${graphics}</office:automatic-styles><office:body><office:drawing>${pages
      .map((shapes, at) => `<draw:page draw:name="sheet ${at + 1}" draw:master-page-name="Sheet">${shapes}</draw:page>`)
      .join('')}</office:drawing></office:body>`,
    '',
  )
  const styles = document(
    'styles',
    `<office:styles><style:default-style style:family="graphic">${text('fo:language="en" fo:country="GB"')}</style:default-style>` +
      `</office:styles><office:automatic-styles>${page(
        'A4',
        `fo:page-width="${sheet.width}mm" fo:page-height="${sheet.height}mm" fo:margin="0mm"`,
      )}</office:automatic-styles><office:master-styles><style:master-page style:name="Sheet" ` +
      'style:page-layout-name="A4"/></office:master-styles>',
    '',
  )
  return writePackage(mimetypeOf.drawing, [
    { path: 'content.xml', type: 'text/xml', content },
    { path: 'styles.xml', type: 'text/xml', content: styles },
  ])
}

const graphics =
  '<style:style style:name="plain" style:family="graphic"><style:graphic-properties draw:fill="none" draw:stroke="none" ' +
  'fo:padding="0mm" draw:auto-grow-height="false" fo:wrap-option="no-wrap"/></style:style>' +
  '<style:style style:name="stroke" style:family="graphic"><style:graphic-properties draw:stroke="solid" svg:stroke-width="0.1mm" ' +
  'svg:stroke-color="#1b2430"/></style:style>'
