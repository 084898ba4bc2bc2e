import { isOfText } from '../../change/styles/families'
import { listStyles } from '../../change/styles/style-list'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* unused({ session }: Subject): Generator<Found> {
  const list = listStyles(session.reading, session.typesetter.library, null).filter(isOfText)
  const idle = list.filter(
    style =>
      style.paragraphs === 0 &&
      style.characters === 0 &&
      !list.some(other => other.parent === style.name && other.family === style.family),
  )
  if (idle.length === 0) return
  const names = idle.slice(0, 8).map(each => each.displayName)
  const more = idle.length - names.length
  yield {
    says:
      `${idle.length === 1 ? 'One style is' : `${idle.length} styles are`} unused: ${names.join(', ')}` +
      (more > 0 ? ` and ${more} more` : ''),
  }
}

export const unusedStyles = check({
  id: 'unused-styles',
  group: 'consistency',
  title: 'Unused styles',
  severity: 'note',
  looksFor: 'Named styles that no text has and no other style goes back to.',
  source: 'The text of the document, masters included.',
  stage: 'styles',
  unseen: 'Styles that a template keeps for later on purpose.',
  find: unused,
})
