import { plainRun, type ReadBlock, type ReadText } from '../blocks'

/**
 * Reads plain text. Where lines are parted by empty ones, an empty line parts paragraphs and the lines between are one;
 * without any, every line is a paragraph.
 */
export function readText(source: string): ReadText {
  const text = source
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
  const parted = /\n[ \t]*\n/.test(text.trim())
  const pieces = parted
    ? text.split(/\n[ \t]*\n+/).map(piece => piece.replace(/[ \t]*\n[ \t]*/g, ' '))
    : text.split('\n')
  const blocks = pieces
    .map(piece => piece.trim())
    .filter(piece => piece !== '')
    .map((piece): ReadBlock => ({ kind: 'paragraph', runs: [plainRun(piece)], style: null }))
  return { title: '', language: '', blocks, left: [] }
}
