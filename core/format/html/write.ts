import type { Paragraph, Story } from '../../document/story-model'
import { paragraphRuns } from '../../style/runs'
import type { Cascade } from '../../style/cascade'
import { weightNumber } from '../../style/properties'

/** A stretch of a paragraph to be written. */
export interface HtmlPiece {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly from: number
  readonly to: number
}

export const escapeHtml = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** Text as HTML: headings, items and paragraphs with the names of their styles, bold and italic, and no other look. */
export function writeHtml(pieces: readonly HtmlPiece[], cascadeOf: (part: string) => Cascade): string {
  const out: string[] = []
  let depth = 0
  const list = (wanted: number) => {
    while (depth < wanted) {
      out.push('<ul>')
      depth++
    }
    while (depth > wanted) {
      out.push('</ul>')
      depth--
    }
  }
  for (const { paragraph, role, from, to } of pieces) {
    const cascade = cascadeOf(paragraph.part)
    const { text, runs } = paragraphRuns(paragraph, cascade, role)
    const inside = runs
      .flatMap(run => {
        const [start, end] = [Math.max(run.start, from), Math.min(run.end, to)]
        if (end <= start || run.inline.kind === 'frame' || run.inline.kind === 'note') return []
        const { weight, posture } = run.style.effective.slots[run.slot]
        const words = escapeHtml(text.slice(start, end))
          .replace(/\n/g, '<br>')
          .replace(/ {2,}/g, spaces => '&nbsp;'.repeat(spaces.length - 1) + ' ')
        const strong = weightNumber(String(weight)) >= 600 && paragraph.heading === null
        const emphasis = posture !== 'normal'
        return [
          `${strong ? '<b>' : ''}${emphasis ? '<i>' : ''}${words}${emphasis ? '</i>' : ''}${strong ? '</b>' : ''}`,
        ]
      })
      .join('')
    const owner = cascade.paragraph(paragraph, role).text.owner?.style
    const style = owner?.family === 'paragraph' ? ` data-style="${escapeHtml(owner.name)}"` : ''
    list(paragraph.list?.level ?? 0)
    const name = paragraph.list ? 'li' : paragraph.heading === null ? 'p' : `h${Math.min(paragraph.heading, 6)}`
    out.push(`<${name}${style}>${inside}</${name}>`)
  }
  list(0)
  return out.join('')
}
