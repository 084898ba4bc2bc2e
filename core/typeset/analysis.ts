import type { Slot } from '../document/font-attributes'
import type { Inline, Paragraph } from '../document/story-model'
import { objectSign, paragraphText } from '../style/runs'
import { slotRuns } from '../style/slots'
import { embeddingLevels } from './bidi'
import { breaksOf, required } from './breaks'
import { latin, scriptTable } from './unicode-tables'
import type { Words } from './words'

/** A stretch of a paragraph's text from one inline, in one font slot. Its style is asked for when it is set. */
export interface AnalysedRun {
  readonly start: number
  readonly end: number
  readonly inline: Inline
  readonly slot: Slot
}

/** What a segment of text is. An anchor takes no room: something stands there that is placed elsewhere. */
export const kinds = { word: 0, space: 1, tab: 2, object: 3, lineBreak: 4, anchor: 5 } as const

/**
 * A paragraph's text taken apart, whatever its faces: made once and kept for as long as its text stays the same.
 *
 * Segments are the smallest pieces that are set in one go: of one kind, run, script and direction, in no two units.
 * Units are what stands between two places where a line may end: segments, then the spaces behind them.
 */
export interface Analysis {
  readonly text: string
  readonly runs: readonly AnalysedRun[]
  readonly rightToLeft: boolean
  readonly strict: boolean
  readonly segments: number
  /**
   * By segment: where it starts (and one more: the text's length), its kind, run, word number, script and embedding
   * level.
   */
  readonly starts: Uint32Array
  readonly kind: Uint8Array
  readonly run: Uint32Array
  readonly word: Int32Array
  readonly script: Uint8Array
  readonly level: Uint8Array
  readonly units: number
  /** By unit: its first segment (and one more), and the first of the spaces at its end. */
  readonly first: Uint32Array
  readonly trailing: Uint32Array
  /** By unit: a line must end behind it (1); it ends with a soft hyphen (2); it is a tab (4). */
  readonly flags: Uint8Array
  /** Everything runs from left to right, in one run and script: most paragraphs. */
  readonly simple: boolean
  /** Simple, and words with single spaces between are all there is. */
  readonly regular: boolean
  /** No unit is a tab, and no object or forced break stands in it. */
  readonly textOnly: boolean
  /** Frames or notes stand in it. */
  readonly hasObjects: boolean
}

export const mustEnd = 1
export const softHyphen = 2
export const isTab = 4

/** Longer stretches without a break are cut, so that none is shaped at once. */
const longestSegment = 1000

export interface AnalysisOptions {
  readonly rightToLeft: boolean
  /** Kinsoku as style:line-break has it (ODF 1.4 part 3, 20.320): strict keeps small kana from a line's start. */
  readonly strict: boolean
}

/** Takes a paragraph apart. Frames that do not stand in the line as characters are anchors. */
export function analyse(paragraph: Paragraph, words: Words, options: AnalysisOptions): Analysis {
  const text = paragraphText(paragraph)
  const runs = runsOf(paragraph, text)
  const levels = embeddingLevels(text, options.rightToLeft)
  const oneScript = /^[\u0000-\u024F\u2000-\u206F\u20A0-\u20CF]*$/.test(text)
  const scripts = oneScript ? null : scriptsOf(text)
  const breaks = breaksOf(breakText(text, runs), { strict: options.strict })

  const starts: number[] = []
  const kind: number[] = []
  const run: number[] = []
  const word: number[] = []
  const script: number[] = []
  const level: number[] = []
  const first: number[] = []
  const trailing: number[] = []
  const flags: number[] = []
  let runAt = 0
  let textOnly = true

  const kindAt = (at: number): number => {
    switch (text.charCodeAt(at)) {
      case 0x20:
      case 0xa0:
        return kinds.space
      case 0x09:
        return kinds.tab
      case 0x0a:
        return kinds.lineBreak
      case 0xfffc:
        return isAnchor(runs[runAt]!.inline) ? kinds.anchor : kinds.object
      default:
        return kinds.word
    }
  }
  const segment = (from: number, to: number, of: number): void => {
    starts.push(from)
    kind.push(of)
    run.push(runAt)
    word.push(of === kinds.word ? words.number(text.slice(from, to)) : to - from)
    script.push(scripts ? scripts[from]! : latin)
    level.push(levels ? levels[from]! : options.rightToLeft ? 1 : 0)
  }
  /** Ends a unit that began with segment `from`. */
  const unit = (from: number, flag: number): void => {
    let last = starts.length
    while (last > from && kind[last - 1] === kinds.space) last--
    first.push(from)
    trailing.push(last)
    flags.push(flag)
  }

  let unitStart = 0
  for (let at = 0; at < text.length;) {
    while (runs[runAt]!.end <= at) runAt++
    const of = kindAt(at)
    if (of === kinds.tab && starts.length > unitStart) {
      unit(unitStart, 0)
      unitStart = starts.length
    }
    let end = at + 1
    if (of === kinds.word || of === kinds.space) {
      const limit = Math.min(runs[runAt]!.end, text.length, at + longestSegment)
      while (
        end < limit &&
        breaks[end] === 0 &&
        (levels === null || levels[end] === levels[at]) &&
        (scripts === null || scripts[end] === scripts[at]) &&
        kindAt(end) === of
      )
        end++
      // A pair of surrogates stays together.
      if (
        end < text.length &&
        end > at + 1 &&
        (text.charCodeAt(end) & 0xfc00) === 0xdc00 &&
        (text.charCodeAt(end - 1) & 0xfc00) === 0xd800
      )
        end--
      else if (
        end === at + 1 &&
        (text.charCodeAt(at) & 0xfc00) === 0xd800 &&
        (text.charCodeAt(end) & 0xfc00) === 0xdc00
      )
        end++
    }
    segment(at, end, of)
    if (of === kinds.tab) {
      unit(unitStart, isTab | (breaks[end] === required ? mustEnd : 0))
      unitStart = starts.length
      textOnly = false
    } else if (breaks[end]! > 0 && end < text.length) {
      unit(
        unitStart,
        breaks[end] === required && text.charCodeAt(end - 1) === 0x0a
          ? mustEnd
          : text.charCodeAt(end - 1) === 0xad
            ? softHyphen
            : 0,
      )
      unitStart = starts.length
    }
    if (of === kinds.object || of === kinds.lineBreak) textOnly = false
    at = end
  }
  if (starts.length > unitStart) unit(unitStart, text.endsWith('\n') ? mustEnd : 0)
  const segments = starts.length
  const simple = runs.length <= 1 && levels === null && scripts === null
  starts.push(text.length)
  first.push(segments)
  return {
    text,
    runs,
    rightToLeft: options.rightToLeft,
    strict: options.strict,
    segments,
    starts: Uint32Array.from(starts),
    kind: Uint8Array.from(kind),
    run: Uint32Array.from(run),
    word: Int32Array.from(word),
    script: Uint8Array.from(script),
    level: Uint8Array.from(level),
    units: trailing.length,
    first: Uint32Array.from(first),
    trailing: Uint32Array.from(trailing),
    flags: Uint8Array.from(flags),
    simple,
    regular:
      simple &&
      segments === trailing.length * 2 - 1 &&
      kind.every((of, at) => (at % 2 === 0 ? of === kinds.word : of === kinds.space && word[at] === 1)),
    textOnly,
    hasObjects: text.includes(objectSign),
  }
}

function isAnchor(inline: Inline): boolean {
  return inline.kind === 'frame' && inline.frame.anchor !== 'as-char'
}

function runsOf(paragraph: Paragraph, text: string): AnalysedRun[] {
  const slots = slotRuns(text)
  const runs: AnalysedRun[] = []
  let start = 0
  let at = 0
  for (const inline of paragraph.inlines) {
    if (inline.kind === 'annotation') continue
    const end = start + (inline.kind === 'frame' || inline.kind === 'note' ? 1 : inline.text.length)
    for (let from = start; from < end;) {
      while (slots[at]!.end <= from) at++
      const to = Math.min(end, slots[at]!.end)
      runs.push({ start: from, end: to, inline, slot: slots[at]!.slot })
      from = to
    }
    start = end
  }
  return runs
}

/** The text as line breaking sees it: a note's sign holds to the word before it, an anchor is as good as nothing. */
function breakText(text: string, runs: readonly AnalysedRun[]): string {
  if (!text.includes(objectSign)) return text
  let result = ''
  let at = 0
  for (const { start, inline } of runs) {
    if (inline.kind !== 'note' && !isAnchor(inline)) continue
    result += text.slice(at, start) + (inline.kind === 'note' ? 'x' : '\u0301')
    at = start + 1
  }
  return result + text.slice(at)
}

/**
 * Scripts by UTF-16 unit, as indexes of the script table. Characters that many scripts share, and marks, take the
 * script in front of them, at a paragraph's start the first one after them (UAX #24 section 5.1, simplified: without
 * pairing of brackets).
 */
function scriptsOf(text: string): Uint8Array {
  const { names, of } = scriptTable()
  const common = names.indexOf('Zyyy')
  const inherited = names.indexOf('Zinh')
  const unknown = names.indexOf('Zzzz')
  const scripts = new Uint8Array(text.length)
  let current = -1
  let opening = 0
  for (let at = 0; at < text.length;) {
    const code = text.codePointAt(at)!
    const length = code > 0xffff ? 2 : 1
    const own = of[code]!
    if (own !== common && own !== inherited && own !== unknown) {
      if (current < 0) scripts.fill(own, 0, opening)
      current = own
    }
    if (current < 0) opening = at + length
    scripts.fill(current < 0 ? latin : current, at, at + length)
    at += length
  }
  return scripts
}
