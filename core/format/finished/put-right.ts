import type { PDFPage } from '@cantoo/pdf-lib'
import { covers, needsNoGlyph, scriptOfCharacter, type FaceRecord } from '../../font/face'
import type { CoveredScript } from '../../font/measure/covered-scripts'
import type { FaceRequest } from '../../font/library'
import type { FinishedFont } from './fonts'
import { draw, pageOf, saidOf, settled, setContents, type FinishedChange, type SettingTools } from './add-text'
import { latin1, type Operator } from './content'
import { boxesOf, charactersIn, linesOf, roomForSpace, spaceWidth, widthOf, type PageLine } from './lines'
import { requestOf } from '../../font/library'
import { familyOfFont } from './font-name'
import { FinishedPdfError, type FinishedPdf } from './open'
import { looked, lookOf, type PageBox } from './page-view'
import { readPageText, type PageText, type TextPiece } from './page-text'

/**
 * What is to be put right: a stretch of a line and what shall stand in its place. Pages count from 1, lines from 0 in the
 * order of the page's content; from and to are offsets in the line's text.
 */
export interface Correction {
  readonly page: number
  readonly line: number
  readonly from: number
  readonly to: number
  readonly words: string
}

/** How words are put right: told before it is done. Lengths in points. */
export interface CorrectionPlan {
  readonly line: string
  readonly becomes: string
  /** The font that shows it, as the PDF calls it. */
  readonly font: string
  /** The family that the whole line is set in instead, where its own font has not all the letters; null where it has. */
  readonly standIn: string | null
  /** What its own font lacks. */
  readonly missing: string
  /** How much wider the line gets; narrower below zero. */
  readonly gain: number
  readonly size: number
  /** Words of the line behind the changed ones that have places of their own: they stay where they are. */
  readonly stays: string
  /** Where the line stands, on its page as it is looked at. */
  readonly at: PageBox
}

interface FoundLine extends PageLine {
  /** Characters of the line, from and to. */
  readonly from: number
  readonly to: number
  /** What stands in their place: letters that share a glyph with changed ones are kept. */
  readonly words: string
}

/** As many characters stand in the place of others at once. */
const longest = 2_000

/** The line of a correction. @throws FinishedPdfError where it is not there, or cannot be reached */
function found(text: PageText, { page, line: at, from, to, words }: Correction): FoundLine {
  const line = linesOf(text)[at]
  if (!line || from > to || from < 0 || to > line.text.length || line.text === '')
    throw new FinishedPdfError(`There is no such place on page ${page}. Nothing was changed.`)
  if (words.length > longest)
    throw new FinishedPdfError(`At most ${longest} characters are put in place of others. Nothing was changed.`)
  if (line.text.slice(0, from) + words + line.text.slice(to) === line.text)
    throw new FinishedPdfError('The line says that already. Nothing was changed.')
  if (line.inForm)
    throw new FinishedPdfError(
      `“${line.text.slice(from, to) || line.text}” stands in a form that page ${page} draws, not in its own content: it may ` +
        'stand elsewhere as well. Nothing was changed.',
    )
  return { ...line, ...glyphsFor(line, from, to, words) }
}

/** The whole glyphs of a stretch; words that are put in before a character take that one along, which stays as it is. */
function glyphsFor(line: PageLine, from: number, to: number, words: string) {
  const [start, end] = from < to ? [from, to] : from > 0 ? [from - 1, from] : [0, 1]
  const range = charactersIn(line, start, end)
  const lengthOf = (until: number) => line.characters.slice(0, until).reduce((sum, each) => sum + each.text.length, 0)
  let behind = range.to
  // Where only the room between glyphs shows a space, the words go to the glyph behind it.
  while (behind < line.characters.length && line.characters[behind - 1]!.glyph < 0) behind++
  return {
    from: range.from,
    to: behind,
    words: line.text.slice(lengthOf(range.from), from) + words + line.text.slice(to, lengthOf(behind)),
  }
}

/**
 * Where words first stand on a page (from 1), as they are to be put right.
 * @throws FinishedPdfError where they are not there
 */
export function correctionOf(finished: FinishedPdf, page: number, find: string, words: string): Correction {
  const wanted = find.normalize('NFC')
  if (wanted.trim() === '') throw new FinishedPdfError('There are no words to look for. Nothing was changed.')
  const lines = linesOf(readPageText(pageOf(finished, page), new Map()))
  const at = (fits: (line: PageLine) => boolean) => lines.findIndex(line => fits(line) && line.text.includes(wanted))
  const own = at(line => !line.inForm)
  const line = own >= 0 ? own : at(() => true)
  if (line < 0)
    throw new FinishedPdfError(
      `“${find}” is on no line of page ${page} whose font tells its letters. Nothing was changed.`,
    )
  const from = lines[line]!.text.indexOf(wanted)
  return { page, line, from, to: from + wanted.length, words }
}

/** A code or, for a space in a font that has none, the room that stands for it. */
const encoded = (font: FinishedFont, character: string): number | null =>
  font.codeFor(character) ?? (character === ' ' ? roomForSpace : null)

const encode = (font: FinishedFont, text: string): number[] | null => {
  const codes: number[] = []
  for (const character of text) {
    const code = encoded(font, character)
    if (code === null) return null
    codes.push(code)
  }
  return codes
}
/** Points on the page for points of the text. */
const stretch = ({ size, spacing }: TextPiece) => (spacing.fontSize === 0 ? 1 : size / Math.abs(spacing.fontSize))

/** What would be done, and how much wider the line gets. Nothing is changed. @throws FinishedPdfError with the reason */
export async function planCorrection(
  finished: FinishedPdf,
  correction: Correction,
  tools: SettingTools,
): Promise<CorrectionPlan> {
  const page = pageOf(finished, correction.page)
  return (await planned(page, readPageText(page, new Map()), correction, tools)).plan
}

async function planned(page: PDFPage, text: PageText, correction: Correction, tools: SettingTools) {
  const line = found(text, correction)
  const first = line.pieces[line.characters[line.from]!.piece]!
  const before = line.characters
    .slice(0, line.from)
    .map(each => each.text)
    .join('')
  const after = line.characters
    .slice(line.to)
    .map(each => each.text)
    .join('')
  const becomes = before + line.words + after
  const missing = [...new Set([...line.words].filter(each => encoded(first.font, each) === null))].join('')
  const own = encode(first.font, line.words)
  const removed = line.characters
    .slice(line.from, line.to)
    .reduce(
      (sum, { piece, glyph }) =>
        glyph < 0 ? sum : sum + widthOf(line.pieces[piece]!, [line.pieces[piece]!.glyphs[glyph]!.code]),
      0,
    )
  const last = line.characters[line.to - 1]!.piece
  const stays = line.characters
    .slice(line.to)
    .filter(each => line.pieces[each.piece]!.operator !== line.pieces[last]!.operator)
    .map(each => each.text)
    .join('')
  const look = lookOf(page)
  const about = {
    line: line.text,
    becomes,
    font: first.font.name,
    missing,
    size: Math.round(first.size * 100) / 100,
    at: around(boxesOf(line, look)),
  }
  if (own)
    return {
      line,
      own,
      drawn: null,
      plan: {
        ...about,
        standIn: null,
        gain: round((widthOf(first, own) - removed) * stretch(first)),
        stays,
      } satisfies CorrectionPlan,
    }
  const [start, end] = [looked(look, line.pieces[0]!.from), looked(look, line.pieces.at(-1)!.to)]
  if (Math.abs(end.y - start.y) > first.size * 0.1 || end.x < start.x)
    throw new FinishedPdfError(
      `${first.font.name} has no “${missing}”, and the line runs turned on its page: it is not set anew. Nothing was changed.`,
    )
  const family = standInFor(first.font, becomes, missing, tools)
  const drawn = await settled(
    {
      text: becomes,
      family,
      size: about.size,
      weight: /bold|black|heavy/i.test(first.font.name) ? 700 : 400,
      italic: /italic|oblique|slanted/i.test(first.font.name),
      color: first.color || '#000000',
      leading: null,
      width: null,
      language: '',
    },
    tools,
  )
  const wide = end.x - start.x
  return {
    line,
    own: null,
    drawn,
    plan: {
      ...about,
      standIn: family,
      gain: round((drawn.lines[0]?.width ?? 0) - wide),
      stays: '',
    } satisfies CorrectionPlan,
  }
}

/** The smallest box around several. */
function around(boxes: readonly PageBox[]): PageBox {
  const [x, y] = [Math.min(...boxes.map(each => each.x)), Math.min(...boxes.map(each => each.y))]
  return {
    x,
    y,
    width: Math.max(...boxes.map(each => each.x + each.width)) - x,
    height: Math.max(...boxes.map(each => each.y + each.height)) - y,
  }
}

const round = (value: number) => Math.round(value * 100) / 100

/**
 * The family that a line is set in where its own font cannot: the first that has all its letters of the same family, where
 * that is in the library, the stand-in that was chosen for its script, what stands in for such a name, and what the library
 * shows the letters in that are lacking.
 */
function standInFor(font: FinishedFont, line: string, missing: string, { typesetter: { library } }: SettingTools) {
  const asked: FaceRequest = {
    ...requestOf(familyOfFont(font.name), 400, false),
    generic: /mono|courier|typewriter|code/i.test(font.name)
      ? 'modern'
      : /sans|arial|helvet|gothic/i.test(font.name)
        ? 'swiss'
        : 'roman',
  }
  const { status, face } = library.resolve(asked)
  const script = mostUsedScript(line)
  const chosen = library.scriptStandIns(asked).find(each => each.script === script)?.face
  const lacking = missing.codePointAt(0)
  const last = lacking === undefined ? null : library.forGlyph(lacking, face)
  const candidates = (status === 'present' ? [face, chosen, last] : [chosen, face, last]).filter(
    each => each !== undefined && each !== null,
  )
  const hasAll = (each: FaceRecord) =>
    [...line].every(character => needsNoGlyph(character.codePointAt(0)!) || covers(each, character.codePointAt(0)!))
  return (candidates.find(hasAll) ?? candidates[0]!).family
}

/** The script that most letters of a line are of; null where none is known. */
function mostUsedScript(line: string): CoveredScript | null {
  const scripts = new Map<CoveredScript, number>()
  for (const character of line) {
    const script = scriptOfCharacter(character)
    if (script) scripts.set(script, (scripts.get(script) ?? 0) + 1)
  }
  return [...scripts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}

/**
 * Puts words of a page right: in the font that shows them where it has all letters, else the whole line in a stand-in. What
 * was there stays byte for byte; the page shows the new line.
 * @throws FinishedPdfError with the reason
 */
export async function putRight(
  finished: FinishedPdf,
  correction: Correction,
  tools: SettingTools,
): Promise<FinishedChange & { readonly plan: CorrectionPlan }> {
  const { plan, said } = await drawRight(finished, correction, tools)
  return { plan, bytes: await finished.pdf.commit(), said: [...said, ...saidOf(finished)] }
}

/** The same, without the file being written: several may follow one another. @throws FinishedPdfError, nothing changed */
export async function drawRight(
  finished: FinishedPdf,
  correction: Correction,
  tools: SettingTools,
): Promise<{ readonly plan: CorrectionPlan; readonly said: readonly string[] }> {
  const page = pageOf(finished, correction.page)
  const text = readPageText(page, new Map())
  const { line, own, drawn, plan } = await planned(page, text, correction, tools)
  const edits = own ? editsFor(line, own) : new Map(line.pieces.map(piece => [piece, [] as number[]]))
  const content = rewritten(text, edits)
  const { context } = finished.pdf
  setContents(page, [context.register(context.flateStream(content))])
  if (drawn) {
    const { x, y } = looked(lookOf(page), line.pieces[0]!.from)
    draw(finished, page, drawn, { x, y: y - drawn.lines[0]!.baseline }, tools)
  }
  const font =
    plan.standIn === null
      ? `in its own font, ${plan.font}`
      : `the line in ${plan.standIn}, since ${plan.font} has no “${plan.missing}”`
  return {
    plan,
    said: [
      `put right ${font}; the line is ${Math.abs(plan.gain)} pt ${plan.gain < 0 ? 'narrower' : 'wider'}`,
      ...(plan.stays.trim() !== '' && Math.abs(plan.gain) > 0.5
        ? [`“${plan.stays.trim()}” behind it stays where it is`]
        : []),
    ],
  }
}

/** The codes of every piece that changes: the new words stand in the first of them. */
function editsFor({ pieces, characters, from, to }: FoundLine, own: readonly number[]): Map<TextPiece, number[]> {
  const edits = new Map<TextPiece, number[]>()
  const changed = characters.slice(from, to)
  const first = changed[0]!.piece
  for (const index of new Set(changed.map(each => each.piece))) {
    const piece = pieces[index]!
    const gone = new Set(changed.filter(each => each.piece === index).map(each => each.glyph))
    const codes: number[] = []
    let put = index !== first
    piece.glyphs.forEach(({ code }, glyph) => {
      if (!gone.has(glyph)) codes.push(code)
      else if (!put) {
        codes.push(...own)
        put = true
      }
    })
    if (!put) codes.unshift(...own)
    edits.set(piece, codes)
  }
  return edits
}

/** The content with other strings in the place of some. */
function rewritten(
  { content, operators, pieces }: PageText,
  edits: ReadonlyMap<TextPiece, readonly number[]>,
): Uint8Array {
  const byOperator = new Map<number, Map<number, string>>()
  for (const piece of pieces) {
    const codes = edits.get(piece)
    if (codes === undefined) continue
    const items = byOperator.get(piece.operator) ?? new Map<number, string>()
    items.set(piece.item, stringsOf(piece.font, codes))
    byOperator.set(piece.operator, items)
  }
  const out: string[] = []
  let at = 0
  for (const [index, items] of [...byOperator].sort((a, b) => a[0] - b[0])) {
    const operator = operators[index]!
    out.push(latin1(content.subarray(at, operator.start)), written(operator, items))
    at = operator.end
  }
  out.push(latin1(content.subarray(at)))
  return Uint8Array.from(out.join(''), character => character.charCodeAt(0))
}

/** Codes as strings of a list, with the room between them that stands for spaces. */
function stringsOf({ codeLength }: FinishedFont, codes: readonly number[]): string {
  const shown = codes.map(code =>
    code === roomForSpace ? `> ${-spaceWidth} <` : code.toString(16).padStart(codeLength * 2, '0'),
  )
  return `<${shown.join('')}>`
}

/** A text-showing operator anew, with some of its strings exchanged: as one with a list, which all of them come to (9.4.3). */
function written({ name, operands }: Operator, items: ReadonlyMap<number, string>): string {
  const hex = (bytes: Uint8Array) => `<${[...bytes].map(byte => byte.toString(16).padStart(2, '0')).join('')}>`
  const number = (at: number) => {
    const operand = operands[at]
    return operand?.kind === 'number' ? operand.value : 0
  }
  const [first] = operands
  const list = name === 'TJ' && first?.kind === 'array' ? first.items : operands.slice(-1)
  const shown = list.map((item, at) =>
    item.kind === 'string' ? (items.get(at) ?? hex(item.bytes)) : item.kind === 'number' ? String(item.value) : '',
  )
  const before = name === "'" ? 'T* ' : name === '"' ? `${number(0)} Tw ${number(1)} Tc T* ` : ''
  return `${before}[${shown.join(' ')}] TJ`
}
