import type { Inline, Paragraph } from '../document/story-model'
import type { Workshop } from './paragraph-model'

/** Fields whose text depends on where or in what document they stand. */
export const livingFields: ReadonlySet<string> = new Set([
  'text:page-number',
  'text:page-count',
  'text:chapter',
  'presentation:header',
  'presentation:footer',
  'presentation:date-time',
])

/** What paragraphs with the values of their page were made from. */
const written = new WeakMap<Paragraph, Paragraph>()

/**
 * The offset in a paragraph as the file has it, for one in the paragraph as its page shows it: fields have other
 * lengths there, and count as a whole.
 */
export function fileOffset(shown: Paragraph, offset: number): number {
  const source = written.get(shown)
  if (!source) return offset
  let [at, own] = [0, 0]
  const length = (inline: Inline) =>
    inline.kind === 'annotation' ? 0 : inline.kind === 'frame' || inline.kind === 'note' ? 1 : inline.text.length
  for (let index = 0; index < shown.inlines.length; index++) {
    const [here, there] = [length(shown.inlines[index]!), length(source.inlines[index]!)]
    if (offset < at + here) return own + (here === there ? offset - at : 0)
    at += here
    own += there
  }
  return own
}

/** Whether a paragraph is shown with values that its page gave it. */
export const hasPageValues = (shown: Paragraph): boolean => written.has(shown)

/** A paragraph as its page shows it: fields have the values of their place. The same one where nothing differs. */
export function withPageValues(paragraph: Paragraph, workshop: Workshop): Paragraph {
  const { fields } = workshop
  const lives = (inline: Inline) =>
    inline.kind === 'text' &&
    inline.field !== null &&
    (inline.field === 'text:title' ? workshop.title !== '' : fields !== null && livingFields.has(inline.field))
  if (!paragraph.inlines.some(lives)) return paragraph
  const { part } = workshop.cascade.scope(paragraph.part)
  const shown: Paragraph = {
    ...paragraph,
    inlines: paragraph.inlines.map((inline): Inline => {
      if (inline.kind !== 'text' || !lives(inline)) return inline
      const node = part.node(inline.node)
      const field = node.kind === 'element' ? node.attributes : part.element(node.parent).attributes
      switch (inline.field) {
        case 'text:title':
          return { ...inline, text: workshop.title }
        case 'text:page-count':
          return { ...inline, text: fields!.pageCount }
        case 'presentation:header':
          return { ...inline, text: fields!.header ?? inline.text }
        case 'presentation:footer':
          return { ...inline, text: fields!.footer ?? inline.text }
        case 'presentation:date-time':
          return { ...inline, text: fields!.dateTime ?? inline.text }
        case 'text:chapter':
          return {
            ...inline,
            text: fields!.chapter?.(Number.parseInt(field['text:outline-level'] ?? '1', 10) || 1) ?? inline.text,
          }
        default: {
          const select = field['text:select-page']
          const adjust =
            (Number.parseInt(field['text:page-adjust'] ?? '0', 10) || 0) +
            (select === 'next' ? 1 : select === 'previous' ? -1 : 0)
          return { ...inline, text: fields!.pageNumber(adjust) }
        }
      }
    }),
  }
  written.set(shown, paragraph)
  return shown
}
