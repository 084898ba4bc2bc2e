import { textFamilies } from '../../style/families'
import { listedStyles } from '../../change/styles/style-list'
import { styleUses } from '../../change/styles/style-uses'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* unused({ session: { reading } }: Subject): Generator<Found> {
  const uses = styleUses(reading, null)
  const list = listedStyles(reading).filter(style => textFamilies.some(family => family === style.family))
  const parents = new Set(list.map(style => `${style.family}\n${style.parentName}`))
  const idle = list.filter(style => {
    const use = uses.get(style)
    return !(use && (use.paragraphs > 0 || use.characters > 0)) && !parents.has(`${style.family}\n${style.name}`)
  })
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
