import { heightOf } from '../../typeset/fragments'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* empty({ session, medium }: Subject, { share }: Readonly<Record<'share', number>>): Generator<Found> {
  if (medium !== 'text') return
  const { pages } = session.composition
  for (const page of pages.slice(0, -1)) {
    const { height, margin } = page.geometry
    const room = height - margin.top - margin.bottom
    const foot = Math.max(
      margin.top,
      ...page.fragments
        .filter(each => each.kind !== 'lines' || each.layout.role === 'body')
        .map(each => each.y + heightOf(each))
        .filter(y => y < height - margin.bottom + 1),
    )
    const left = ((height - margin.bottom - foot) / room) * 100
    if (left > share) yield { says: `${Math.round(left)} % of page ${page.number} is empty`, page: page.index }
  }
}

export const emptySpace = check({
  id: 'empty-space',
  group: 'setting',
  title: 'Much empty space',
  severity: 'note',
  looksFor: 'Pages of a text, the last one aside, that are empty for the most part.',
  source: 'The composition of the page.',
  stage: 'pages',
  unseen: 'Whether a new part begins on the next page, as it often does.',
  limits: { share: { title: 'Empty by more than, %', usual: 60, least: 10, most: 100 } },
  find: empty,
})
