import MarkdownIt from 'markdown-it'
import type { ReadText } from '../blocks'
import { readHtml } from '../html/read'

// HTML inside is taken as text: what a file brings along is never run, and need not be guessed at.
const markdown = new MarkdownIt('default', { html: false, linkify: false, typographer: false })

/**
 * Reads Markdown (CommonMark 0.31 with tables and strikethrough). Its first heading of the first level is the
 * title.
 */
export function readMarkdown(source: string): ReadText {
  const read = readHtml(markdown.render(source.replace(/^---\r?\n[\s\S]*?\r?\n---\r?\n/, '')))
  const first = read.blocks.find(block => block.kind === 'heading' && block.level === 1)
  return {
    ...read,
    title:
      first?.kind === 'heading'
        ? first.runs
            .map(run => run.text)
            .join('')
            .replace(/\s+/g, ' ')
        : '',
  }
}
