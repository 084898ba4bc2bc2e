import { check, type Found } from '../check'
import type { Subject } from '../subject'

/** Places of absent families, with the paragraph each stands in where a page shows it. */
function* absent(subject: Subject): Generator<Found> {
  const { faces, places } = subject.session.absent
  for (const place of places) {
    const face = faces.find(each => each.family === place.family)
    if (face?.status === 'alias') continue
    const text = subject.textAt(place.part, place.node)
    const says = `${place.family || 'a font without a name'} is absent${face?.standIn ? `; ${face.standIn} shows it` : ''}`
    if (text) yield { says, at: { text, from: place.start, to: place.end } }
    else if (place.page >= 0) yield { says, page: place.page }
  }
  for (const face of faces) {
    if (face.status !== 'absent' || places.some(each => each.family === face.family)) continue
    const owners = face.layers.flatMap(each => each.owners).slice(0, 3)
    yield {
      says: `${face.family} is absent and named by ${owners.join(', ') || 'a declaration'}, though no text takes it`,
      severity: owners.length > 0 ? 'warning' : 'note',
    }
  }
}

export const absentFaces = check({
  id: 'absent-face',
  group: 'faces',
  title: 'Absent face',
  severity: 'error',
  looksFor: 'Text, empty lines, bullets and defaults set in a family that the library does not have.',
  source: 'The names in the file against the faces of this desk.',
  stage: 'absent',
  unseen: 'A face of the same name that is another design. Absent faces are resolved in the Absent tab.',
  find: absent,
})
