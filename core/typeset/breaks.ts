import { lineBreakTable } from './unicode-tables'

/** What kinds of break a text gets, beside what its characters say. */
export interface BreakOptions {
  /**
   * Small kana and the like may not begin a line (class CJ taken as NS); else they may (as ID): UAX #14 section
   * 6.1.
   */
  readonly strict: boolean
}

/** After a position a line may end (1) or must (2). */
export const allowed = 1
export const required = 2

/**
 * Text of these words alone breaks after its spaces and nowhere else, whatever the rules say in between: letters (AL)
 * or numbers (NU IS NU), a quotation mark (QU) on either side, and closing punctuation (IS, CP) that no letter follows.
 */
const plain =
  /^ *(?:["']?(?:[A-Za-zÀ-ÖØ-öø-ÿ]+(?:'[A-Za-zÀ-ÖØ-öø-ÿ]+)?|[0-9]+(?:[.,][0-9]+)*)[.,:;]?["')]?[.,;]?(?: +|$))*$/

/**
 * Break opportunities: for each UTF-16 position of the text, the end included, whether a line may (1) or must (2) end
 * in front of it. Unicode line breaking, UAX #14 for Unicode 15.0, with numbers as in example 7 of its section 8.2.
 */
export function breaksOf(text: string, options: BreakOptions = { strict: true }): Uint8Array {
  const breaks = new Uint8Array(text.length + 1)
  breaks[text.length] = allowed
  if (plain.test(text)) {
    for (let at = text.indexOf(' '); at >= 0;) {
      let end = at + 1
      while (text.charCodeAt(end) === 0x20) end++
      if (end < text.length) breaks[end] = allowed
      at = text.indexOf(' ', end)
    }
    return breaks
  }
  applyRules(text, options, breaks)
  return breaks
}

let classes: Record<string, number> | null = null
function classNumbers(): Record<string, number> {
  return (classes ??= Object.fromEntries(lineBreakTable().names.map((name, index) => [name, index])))
}

function applyRules(text: string, options: BreakOptions, breaks: Uint8Array): void {
  const table = lineBreakTable().of
  const c = classNumbers() as Record<
    | 'AL'
    | 'HL'
    | 'BA'
    | 'HY'
    | 'BB'
    | 'B2'
    | 'BK'
    | 'CR'
    | 'LF'
    | 'NL'
    | 'SP'
    | 'ZW'
    | 'ZWJ'
    | 'CM'
    | 'WJ'
    | 'GL'
    | 'CL'
    | 'CP'
    | 'CPwide'
    | 'EX'
    | 'IS'
    | 'SY'
    | 'OP'
    | 'OPwide'
    | 'QU'
    | 'NS'
    | 'CB'
    | 'IN'
    | 'NU'
    | 'PR'
    | 'PO'
    | 'ID'
    | 'EB'
    | 'EM'
    | 'JL'
    | 'JV'
    | 'JT'
    | 'H2'
    | 'H3'
    | 'RI'
    | 'CJ'
    | 'SA'
    | 'PictCn',
    number
  >
  const positions: number[] = []
  const raw: number[] = []
  for (let at = 0; at < text.length;) {
    const code = text.codePointAt(at)!
    let own = table[code]!
    if (own === c.CJ) own = options.strict ? c.NS : c.ID
    if (own === c.SA) own = c.AL
    positions.push(at)
    raw.push(own)
    at += code > 0xffff ? 2 : 1
  }
  const count = raw.length
  // LB9 and LB10: marks take the class of their base; `joined` marks those that stay with it.
  const resolved = new Array<number>(count)
  const joined = new Array<boolean>(count).fill(false)
  for (let index = 0; index < count; index++) {
    const own = raw[index]!
    if (own !== c.CM && own !== c.ZWJ) {
      resolved[index] = own
      continue
    }
    const base = index > 0 ? resolved[index - 1]! : -1
    if (base < 0 || base === c.BK || base === c.CR || base === c.LF || base === c.NL || base === c.SP || base === c.ZW)
      resolved[index] = c.AL
    else {
      resolved[index] = base
      joined[index] = true
    }
  }
  const numbers = numberRuns(resolved, joined, c)
  const isAlpha = (k: number) => k === c.AL || k === c.HL
  const isHangul = (k: number) => k === c.JL || k === c.JV || k === c.JT || k === c.H2 || k === c.H3
  const isClosing = (k: number) => k === c.CL || k === c.CP || k === c.CPwide
  const isOpening = (k: number) => k === c.OP || k === c.OPwide
  const isIdeographic = (k: number) => k === c.ID || k === c.EB || k === c.EM || k === c.PictCn
  /** Class before the spaces that end at `index`, and whether there were any. */
  let beforeSpaces = -1
  let regional = 0

  const decide = (index: number): number => {
    const before = resolved[index - 1]!
    const after = resolved[index]!
    if (before === c.BK || before === c.LF || before === c.NL) return required
    if (before === c.CR) return raw[index] === c.LF ? 0 : required
    if (after === c.BK || after === c.CR || after === c.LF || after === c.NL) return 0
    if (after === c.SP || raw[index] === c.ZW) return 0
    if (beforeSpaces === c.ZW) return allowed
    if (raw[index - 1] === c.ZWJ) return 0
    if (joined[index]) return 0
    if (after === c.WJ || before === c.WJ || before === c.GL) return 0
    if (after === c.GL && before !== c.SP && before !== c.BA && before !== c.HY) return 0
    if (isClosing(after) || after === c.EX || after === c.IS || after === c.SY) return 0
    if (isOpening(beforeSpaces)) return 0
    if (beforeSpaces === c.QU && isOpening(after)) return 0
    if (isClosing(beforeSpaces) && after === c.NS) return 0
    if (beforeSpaces === c.B2 && after === c.B2) return 0
    if (before === c.SP) return allowed
    if (after === c.QU || before === c.QU) return 0
    if (after === c.CB || before === c.CB) return allowed
    if (after === c.BA || after === c.HY || after === c.NS || before === c.BB) return 0
    if ((before === c.HY || before === c.BA) && index > 1 && baseBefore(index - 1) === c.HL) return 0
    if (before === c.SY && after === c.HL) return 0
    if (after === c.IN) return 0
    if ((isAlpha(before) && after === c.NU) || (before === c.NU && isAlpha(after))) return 0
    if ((before === c.PR && isIdeographic(after)) || (isIdeographic(before) && after === c.PO)) return 0
    if (
      ((before === c.PR || before === c.PO) && isAlpha(after)) ||
      (isAlpha(before) && (after === c.PR || after === c.PO))
    )
      return 0
    if (numbers[index]) return 0
    if (before === c.JL && isHangul(after) && after !== c.JT) return 0
    if ((before === c.JV || before === c.H2) && (after === c.JV || after === c.JT)) return 0
    if ((before === c.JT || before === c.H3) && after === c.JT) return 0
    if ((isHangul(before) && after === c.PO) || (before === c.PR && isHangul(after))) return 0
    if (isAlpha(before) && isAlpha(after)) return 0
    if (before === c.IS && isAlpha(after)) return 0
    if ((isAlpha(before) || before === c.NU) && after === c.OP) return 0
    if (before === c.CP && (isAlpha(after) || after === c.NU)) return 0
    if (before === c.RI && after === c.RI && regional % 2 === 1) return 0
    if ((before === c.EB || before === c.PictCn) && after === c.EM) return 0
    return allowed
  }
  /** The class of the base in front of the base at or before `index`. */
  const baseBefore = (index: number): number => {
    let at = index
    while (at > 0 && joined[at]) at--
    return at > 0 ? resolved[at - 1]! : -1
  }

  for (let index = 1; index < count; index++) {
    const before = resolved[index - 1]!
    if (before !== c.SP) beforeSpaces = before
    else if (index === 1) beforeSpaces = -1
    if (before === c.RI) {
      if (!joined[index - 1]) regional++
    } else regional = 0
    breaks[positions[index]!] = decide(index)
  }
  const end = resolved[count - 1]
  if (end === c.BK || end === c.LF || end === c.NL || end === c.CR) breaks[text.length] = required
}

/**
 * Positions inside a number, in front of which no line ends: (PR|PO)? (OP|HY)? NU (NU|SY|IS)* (CL|CP)? (PR|PO)?,
 * example 7 of section 8.2.
 */
function numberRuns(
  resolved: readonly number[],
  joined: readonly boolean[],
  c: Readonly<Record<string, number>>,
): boolean[] {
  const inside = new Array<boolean>(resolved.length).fill(false)
  // Indexes of bases alone: marks belong to what they stand on.
  const bases: number[] = []
  for (let index = 0; index < resolved.length; index++) if (!joined[index]) bases.push(index)
  const at = (position: number) => (position >= 0 && position < bases.length ? resolved[bases[position]!]! : -1)
  for (let position = 0; position < bases.length; position++) {
    if (at(position) !== c.NU) continue
    let from = position
    if (at(from - 1) === c.OP || at(from - 1) === c.OPwide || at(from - 1) === c.HY) from--
    if (at(from - 1) === c.PR || at(from - 1) === c.PO) from--
    let to = position
    while (at(to + 1) === c.NU || at(to + 1) === c.SY || at(to + 1) === c.IS) to++
    if (at(to + 1) === c.CL || at(to + 1) === c.CP || at(to + 1) === c.CPwide) to++
    if (at(to + 1) === c.PR || at(to + 1) === c.PO) to++
    for (let each = from + 1; each <= to; each++) inside[bases[each]!] = true
    position = Math.max(position, to - 1)
  }
  return inside
}
