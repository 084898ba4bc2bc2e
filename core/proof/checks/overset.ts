import { check, type Found } from '../check'
import type { Subject } from '../subject'
import { isWithin } from '../../document/span-places'

function* over({ session, texts }: Subject): Generator<Found> {
  for (const { part, node, name, lines, characters, page } of session.composition.overset) {
    const parsed = session.document.parts.get(part)
    const text =
      parsed && texts.find(each => each.paragraph.part === part && isWithin(parsed, each.paragraph.node, node))
    yield {
      says: `${name || 'A frame'} runs over by ${lines} ${lines === 1 ? 'line' : 'lines'}, ${characters} characters`,
      ...(text ? { at: { text, from: 0, to: text.text.length } } : { page }),
      repair: { fit: { part, node } },
    }
  }
}

export const overset = check({
  id: 'overset',
  group: 'setting',
  title: 'Overset text',
  severity: 'error',
  looksFor: 'Frames whose text has no room.',
  source: 'The composition of the page.',
  unseen: 'Frames that grow with their text. Put right by the gentlest tracking, size, leading or height that does it.',
  find: over,
})
