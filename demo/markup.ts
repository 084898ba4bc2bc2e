/** The demo's sources: light markup, a line a block. See sailing-guide.txt. */
export type SourceInline =
  | { readonly kind: 'text' | 'name'; readonly text: string }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'fault'; readonly fault: string; readonly text: string }

export type SourceBlock =
  | { readonly kind: 'heading'; readonly level: 1 | 2; readonly text: string }
  | { readonly kind: 'lead' | 'body' | 'item' | 'notice'; readonly inlines: readonly SourceInline[] }
  | { readonly kind: 'table'; readonly rows: readonly (readonly string[])[] }
  | { readonly kind: 'page' | 'empty' | 'timetable' | 'chart' }

function inlines(text: string): SourceInline[] {
  const parts: SourceInline[] = []
  const pattern = /\[([a-z-]+)\](.*?)\[\/\]|\*([^*]+)\*/g
  let at = 0
  for (const match of text.matchAll(pattern)) {
    if (match.index > at) parts.push({ kind: 'text', text: text.slice(at, match.index) })
    if (match[3] !== undefined) parts.push({ kind: 'name', text: match[3] })
    else if (match[1] === 'note') parts.push({ kind: 'note', text: match[2]! })
    else parts.push({ kind: 'fault', fault: match[1]!, text: match[2]! })
    at = match.index + match[0].length
  }
  if (at < text.length) parts.push({ kind: 'text', text: text.slice(at) })
  return parts
}

/** Reads a source text. */
export function readSource(source: string): SourceBlock[] {
  const blocks: SourceBlock[] = []
  for (const line of source.split('\n')) {
    if (line.trim() === '') continue
    if (line.startsWith('# ')) blocks.push({ kind: 'heading', level: 1, text: line.slice(2) })
    else if (line.startsWith('## ')) blocks.push({ kind: 'heading', level: 2, text: line.slice(3) })
    else if (line.startsWith('> ')) blocks.push({ kind: 'lead', inlines: inlines(line.slice(2)) })
    else if (line.startsWith('- ')) blocks.push({ kind: 'item', inlines: inlines(line.slice(2)) })
    else if (line.startsWith('!notice ')) blocks.push({ kind: 'notice', inlines: inlines(line.slice(8)) })
    else if (line.startsWith('| ')) {
      const row = line
        .slice(2)
        .split('|')
        .map(cell => cell.trim())
      const last = blocks.at(-1)
      if (last?.kind === 'table') blocks[blocks.length - 1] = { kind: 'table', rows: [...last.rows, row] }
      else blocks.push({ kind: 'table', rows: [row] })
    } else if (line.startsWith('!'))
      blocks.push({ kind: line.slice(1).trim() as 'page' | 'empty' | 'timetable' | 'chart' })
    else blocks.push({ kind: 'body', inlines: inlines(line) })
  }
  return blocks
}
