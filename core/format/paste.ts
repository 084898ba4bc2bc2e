import type { Edit } from '../document/edits'
import type { NewParagraph } from '../document/edit-paragraphs'
import type { ReadBlock, ReadRun } from './blocks'

/** Where something is pasted. */
interface Place {
  readonly part: string
  readonly node: number
  readonly offset: number
}

/** The edits of a paste, and the offset of the caret in the paragraph it ends in. */
export interface Pasted {
  readonly edits: readonly Edit[]
  readonly last: number
}

/** Plain text: it takes the style at the caret, and each of its lines is a paragraph. */
export function pastePlain(at: Place, text: string): Pasted {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF\uFFFC]/g, '')
    .replace(/\n+$/, '')
    .split('\n')
  if (lines.length === 1)
    return {
      edits:
        lines[0] === ''
          ? []
          : [{ type: 'text', part: at.part, node: at.node, from: at.offset, to: at.offset, text: lines[0]! }],
      last: lines[0]!.length,
    }
  const paragraphs = lines.map((line): NewParagraph => ({
    style: null,
    heading: null,
    runs: [{ text: line, style: null }],
  }))
  return {
    edits: [{ type: 'paste', part: at.part, node: at.node, at: at.offset, how: 'plain', paragraphs }],
    last: lines.at(-1)!.length,
  }
}

/** The first of some names that a document has a style by. */
const firstOf = (styles: ReadonlySet<string>, ...names: readonly string[]): string | null =>
  names.find(name => styles.has(name)) ?? null

/**
 * Structure, mapped to styles of the document: a block that names one of them takes it; headings, lists, quotations and
 * code take the styles that OpenDocument readers commonly name so, where the document has them; all else the style at
 * the caret. Bold and italic are kept where it has character styles for them. No other look comes along.
 */
export function pasteBlocks(at: Place, blocks: readonly ReadBlock[], names: readonly string[]): Pasted {
  const styles = new Set(names)
  const character = (run: ReadRun): string | null =>
    run.strong
      ? firstOf(styles, 'Strong_20_Emphasis', 'Strong')
      : run.emphasis
        ? firstOf(styles, 'Emphasis')
        : run.code
          ? firstOf(styles, 'Source_20_Text')
          : null
  const runsOf = (runs: readonly ReadRun[]) => runs.map(run => ({ text: run.text, style: character(run) }))
  const own = (style: string | null, ...fallbacks: readonly string[]) =>
    style !== null && styles.has(style) ? style : firstOf(styles, ...fallbacks)
  const paragraphs = blocks.flatMap((block): NewParagraph[] => {
    switch (block.kind) {
      case 'paragraph':
        return [{ style: own(block.style), heading: null, runs: runsOf(block.runs) }]
      case 'quote':
        return [{ style: own(block.style, 'Quotations'), heading: null, runs: runsOf(block.runs) }]
      case 'heading':
        return [
          {
            style: own(block.style, `Heading_20_${block.level}`, `Heading${block.level}`),
            heading: block.level,
            runs: runsOf(block.runs),
          },
        ]
      case 'item':
        return [{ style: own(block.style, 'List_20_Bullet', 'List'), heading: null, runs: runsOf(block.runs) }]
      case 'code':
        return block.text.split('\n').map(line => ({
          style: own(null, 'Preformatted_20_Text'),
          heading: null,
          runs: [{ text: line, style: null }],
        }))
      case 'table':
        return block.rows.map(row => ({
          style: null,
          heading: null,
          runs: [{ text: row.map(cell => cell.map(run => run.text).join('')).join('\t'), style: null }],
        }))
      case 'rule':
        return []
    }
  })
  const last = paragraphs.at(-1)?.runs.reduce((sum, run) => sum + run.text.length, 0) ?? 0
  return {
    edits:
      paragraphs.length === 0
        ? []
        : [{ type: 'paste', part: at.part, node: at.node, at: at.offset, how: 'structure', paragraphs }],
    last,
  }
}
