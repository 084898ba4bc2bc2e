import type { FinishedFont } from './fonts'
import { draw, pageOf, saidOf, settled, setContents, type FinishedChange, type SettingTools } from './add-text'
import { latin1, type Operator } from './content'
import { FinishedPdfError, type FinishedPdf } from './open'
import { readPageText, type PageText, type TextPiece } from './page-text'

/** What is to be put right on a page (from 1): words as they stand there, and what shall stand in their place. */
export interface Correction {
  readonly page: number
  readonly find: string
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
}

/** A character of a line, and the piece and glyph that show it; -1 for a space that no glyph shows. */
interface LineCharacter {
  readonly text: string
  readonly piece: number
  readonly glyph: number
}

interface FoundLine {
  readonly pieces: readonly TextPiece[]
  readonly characters: readonly LineCharacter[]
  readonly from: number
  readonly to: number
}

/** Pieces on one line, as near to one another as words are. */
function linesOf(pieces: readonly TextPiece[]): TextPiece[][] {
  const lines: TextPiece[][] = []
  for (const piece of pieces) {
    const last = lines.at(-1)?.at(-1)
    const gap = last ? piece.from.x - last.to.x : 0
    const level = last ? Math.abs(piece.from.y - last.to.y) < Math.max(piece.size, last.size) * 0.2 : false
    if (last && level && gap > -piece.size && gap < piece.size * 3) lines.at(-1)!.push(piece)
    else lines.push([piece])
  }
  return lines
}

function charactersOf(pieces: readonly TextPiece[]): LineCharacter[] {
  const characters: LineCharacter[] = []
  pieces.forEach((piece, index) => {
    const before = pieces[index - 1]
    const gap = before ? piece.from.x - before.to.x : 0
    if (before && gap > piece.size * 0.18 && !/\s$/.test(before.text) && !/^\s/.test(piece.text))
      characters.push({ text: ' ', piece: index, glyph: -1 })
    piece.glyphs.forEach(({ text }, glyph) => {
      characters.push({ text, piece: index, glyph })
    })
  })
  return characters
}

/** Looks for words on a page, in its own content. @throws FinishedPdfError where they are not there, or cannot be reached */
function found({ pieces }: PageText, { find, page }: Correction): FoundLine {
  const wanted = find.normalize('NFC')
  if (wanted.trim() === '') throw new FinishedPdfError('There are no words to look for. Nothing was changed.')
  let inForm = false
  for (const line of linesOf(pieces)) {
    const characters = charactersOf(line)
    const text = characters.map(each => each.text).join('')
    const at = text.indexOf(wanted)
    if (at < 0) continue
    if (line.some(piece => piece.operator < 0)) {
      inForm = true
      continue
    }
    let passed = 0
    const from = characters.findIndex(each => (passed += each.text.length) > at)
    passed = 0
    const to = characters.findIndex(each => (passed += each.text.length) >= at + wanted.length) + 1
    return { pieces: line, characters, from, to }
  }
  if (inForm)
    throw new FinishedPdfError(
      `“${find}” stands in a form that page ${page} draws, not in its own content: it may stand elsewhere as well. Nothing was changed.`,
    )
  throw new FinishedPdfError(
    `“${find}” is on no line of page ${page} whose font tells its letters. Nothing was changed.`,
  )
}

const encode = (font: FinishedFont, text: string): number[] | null => {
  const codes: number[] = []
  for (const character of text) {
    const code = font.codeFor(character)
    if (code === null) return null
    codes.push(code)
  }
  return codes
}
const widthOf = ({ font, spacing }: TextPiece, codes: readonly number[]): number =>
  codes.reduce(
    (sum, code) =>
      sum +
      ((font.width(code) / 1000) * spacing.fontSize +
        spacing.glyph +
        (font.codeLength === 1 && code === 32 ? spacing.word : 0)) *
        spacing.scale,
    0,
  )
/** Points on the page for points of the text. */
const stretch = ({ size, spacing }: TextPiece) => (spacing.fontSize === 0 ? 1 : size / Math.abs(spacing.fontSize))

/** What would be done, and how much wider the line gets. Nothing is changed. @throws FinishedPdfError with the reason */
export async function planCorrection(
  finished: FinishedPdf,
  correction: Correction,
  tools: SettingTools,
): Promise<CorrectionPlan> {
  const page = pageOf(finished, correction.page)
  return (await planned(readPageText(page, new Map()), correction, tools)).plan
}

async function planned(text: PageText, correction: Correction, tools: SettingTools) {
  const line = found(text, correction)
  const first = line.pieces[line.characters[line.from]!.piece]!
  const whole = line.characters.map(each => each.text).join('')
  const before = line.characters
    .slice(0, line.from)
    .map(each => each.text)
    .join('')
  const after = line.characters
    .slice(line.to)
    .map(each => each.text)
    .join('')
  const becomes = before + correction.words + after
  const missing = [...new Set([...correction.words].filter(each => first.font.codeFor(each) === null))].join('')
  const own = encode(first.font, correction.words)
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
  const about = { line: whole, becomes, font: first.font.name, missing, size: Math.round(first.size * 100) / 100 }
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
  const [start, end] = [line.pieces[0]!.from, line.pieces.at(-1)!.to]
  if (Math.abs(end.y - start.y) > first.size * 0.1 || end.x < start.x)
    throw new FinishedPdfError(
      `${first.font.name} has no “${missing}”, and the line runs turned on its page: it is not set anew. Nothing was changed.`,
    )
  const family = standInFor(first.font, tools)
  const drawn = await settled(
    {
      text: becomes,
      family: family.name,
      size: about.size,
      weight: /bold|black|heavy/i.test(first.font.name) ? 700 : 400,
      italic: /italic|oblique|slanted/i.test(first.font.name),
      color: first.color || '#000000',
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
      standIn: family.name,
      gain: round((drawn.lines[0]?.width ?? 0) - wide),
      stays: '',
    } satisfies CorrectionPlan,
  }
}

const round = (value: number) => Math.round(value * 100) / 100

/** The family that a line is set in where its own font cannot: the same one where it is here, else what stands for it. */
function standInFor(font: FinishedFont, { typesetter }: SettingTools): { readonly name: string } {
  const name = font.name
    .replace(/[-,](Bold|Italic|Oblique|Regular|Roman|Medium|Light|Semi|Demi|Black|Book|MT|PS).*$/i, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .trim()
  const { face } = typesetter.library.resolve({
    family: name || font.name,
    styleName: '',
    weight: 400,
    italic: false,
    generic: /mono|courier|typewriter|code/i.test(font.name)
      ? 'modern'
      : /sans|arial|helvet|gothic/i.test(font.name)
        ? 'swiss'
        : 'roman',
    pitch: '',
    charset: '',
    slot: 'western',
  })
  return { name: face.family }
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
  const page = pageOf(finished, correction.page)
  const text = readPageText(page, new Map())
  const { line, own, drawn, plan } = await planned(text, correction, tools)
  const edits = own ? editsFor(line, own) : new Map(line.pieces.map(piece => [piece, [] as number[]]))
  const content = rewritten(text, edits)
  const { context } = finished.pdf
  setContents(page, [context.register(context.flateStream(content))])
  if (drawn) {
    const start = line.pieces[0]!.from
    const box = page.getCropBox()
    const base = drawn.lines[0]!.baseline
    draw(finished, page, drawn, { x: start.x - box.x, y: box.y + box.height - start.y - base }, tools)
  }
  const font =
    plan.standIn === null
      ? `in its own font, ${plan.font}`
      : `the line in ${plan.standIn}, since ${plan.font} has no “${plan.missing}”`
  return {
    plan,
    bytes: await finished.pdf.commit(),
    said: [
      `put right ${font}; the line is ${Math.abs(plan.gain)} pt ${plan.gain < 0 ? 'narrower' : 'wider'}`,
      ...(plan.stays.trim() !== '' && Math.abs(plan.gain) > 0.5
        ? [`“${plan.stays.trim()}” behind it stays where it is`]
        : []),
      ...saidOf(finished),
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
    const digits = piece.font.codeLength * 2
    items.set(piece.item, `<${codes.map(code => code.toString(16).padStart(digits, '0')).join('')}>`)
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

/** A text-showing operator anew, with some of its strings exchanged. */
function written({ name, operands }: Operator, items: ReadonlyMap<number, string>): string {
  const hex = (bytes: Uint8Array) => `<${[...bytes].map(byte => byte.toString(16).padStart(2, '0')).join('')}>`
  if (name === 'TJ' && operands[0]?.kind === 'array') {
    const list = operands[0].items.map((item, at) =>
      item.kind === 'string' ? (items.get(at) ?? hex(item.bytes)) : item.kind === 'number' ? String(item.value) : '',
    )
    return `[${list.join(' ')}] TJ`
  }
  const last = operands.length - 1
  const said = operands.map((operand, at) =>
    operand.kind === 'string' && at === last
      ? (items.get(0) ?? hex(operand.bytes))
      : operand.kind === 'number'
        ? String(operand.value)
        : '',
  )
  return `${said.join(' ')} ${name}`
}
