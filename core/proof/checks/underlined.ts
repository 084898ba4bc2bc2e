import { check, type Found, type Repair } from '../check'
import { inStyle, styleSaying } from '../style-wish'
import { seenRuns, stretchOf, type ProofText, type Subject } from '../subject'
import type { TextRun } from '../../style/runs'

/** Whether text is a link: links may be underlined. */
function isLink({ session }: Subject, { paragraph }: ProofText, { inline }: TextRun): boolean {
  const part = session.document.parts.get(paragraph.part)
  const innermost = 'span' in inline ? inline.span : null
  for (let span = innermost; span; span = span.parent) if (part?.element(span.node).name === 'text:a') return true
  return false
}

/** Without the line: words, and styles of words, in italics instead; a style of whole paragraphs needs no other emphasis. */
function withoutLine(text: ProofText, run: TextRun): Repair {
  const saying = styleSaying(text, run.style.effective.layers, { attribute: 'style:text-underline-style', on: 'text' })
  return saying
    ? inStyle(saying, {
        text: {
          'style:text-underline-style': 'none',
          ...(saying.family === 'text' ? { 'fo:font-style': 'italic' } : {}),
        },
      })
    : { looks: [{ at: stretchOf(text, run.start, run.end), change: { underlined: false, italic: true } }] }
}

function* lines(subject: Subject): Generator<Found> {
  for (const text of subject.texts)
    for (const { run } of seenRuns(text)) {
      const line = run.style.effective.shared['style:text-underline-style']
      if (line === 'none' || line === '' || isLink(subject, text, run)) continue
      yield {
        says: 'Underlined, and no link',
        at: { text, from: run.start, to: run.end },
        repair: withoutLine(text, run),
      }
    }
}

export const underlined = check({
  id: 'underlined',
  group: 'words',
  title: 'Underlining as emphasis',
  severity: 'note',
  looksFor: 'Underlined words that are no links.',
  source: 'Bringhurst, The Elements of Typographic Style, 5.4; readers take what is underlined for a link.',
  unseen: 'Addresses that are written out and no links. Put right by italics, or in the style that says the line.',
  find: lines,
})
