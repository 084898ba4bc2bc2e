import { measureToStyle } from '../../house/to-style'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

export const toStyle = check({
  id: 'not-to-style',
  group: 'consistency',
  title: 'Not to style',
  severity: 'warning',
  looksFor:
    'Text whose face, size, colour or leading is not as its role in the house says, or whose role is not known.',
  source: 'The house that the document is held against.',
  stage: 'house',
  unseen: 'Roles that are given wrongly. Documents are brought to their house in the House tab.',
  *find(subject: Subject): Generator<Found> {
    const { session, house } = subject
    if (!house) return
    for (const { part, node, from, to, why } of measureToStyle(session.reading, house).places) {
      const text = subject.textAt(part, node)
      if (text) yield { says: why.join(', '), at: { text, from, to } }
    }
  },
})
