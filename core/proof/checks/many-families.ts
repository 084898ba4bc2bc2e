import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* many(
  { session, texts, house }: Subject,
  { families: usual }: Readonly<Record<'families', number>>,
): Generator<Found> {
  const most = house?.limits.families ?? usual
  const { census } = session.detail
  const counts = new Map<string, number>()
  for (const face of census.faces)
    if (!face.symbols && face.family !== '' && !face.onlySpaces)
      counts.set(face.family, (counts.get(face.family) ?? 0) + face.characters)
  const sorted = [...counts].sort((a, b) => b[1] - a[1])
  if (sorted.length <= most) return
  for (const [family, characters] of sorted.slice(most)) {
    const text = texts.find(each => each.runs.some(run => run.style.effective.slots[run.slot].font.family === family))
    const run = text?.runs.find(each => each.style.effective.slots[each.slot].font.family === family)
    const says = `${sorted.length} families are used, ${most} are meant: ${family} sets ${characters} characters`
    yield text && run ? { says, at: { text, from: run.start, to: run.end } } : { says }
  }
}

export const manyFamilies = check({
  id: 'many-families',
  group: 'faces',
  title: 'Too many families',
  severity: 'note',
  looksFor: 'Families beyond those that set most of the text.',
  source: 'The limit of the house, else of the checklist.',
  stage: 'swap',
  unseen: 'Families that look alike. Symbol faces do not count.',
  limits: { families: { title: 'Families at most', usual: 4, least: 1, most: 50 } },
  find: many,
})
