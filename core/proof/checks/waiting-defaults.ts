import { kindTitles } from '../../style/start-titles'
import { listStarts } from '../../change/defaults/start-list'
import { sameFamily } from '../../document/font-family'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

/** The family that most text is set in; null where there is no text. */
function mainFamily({ session }: Subject): string | null {
  const counts = new Map<string, number>()
  for (const { family, characters, slot, status } of session.detail.census.faces)
    if (slot === 'western' && status === 'present') counts.set(family, (counts.get(family) ?? 0) + characters)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}

function* waiting(subject: Subject): Generator<Found> {
  const { session } = subject
  const main = mainFamily(subject)
  const used = session.detail.census.faces.filter(each => each.characters > 0).map(each => each.family)
  for (const { kind, live, set, family, status } of listStarts(session.reading, session.typesetter.library)) {
    if (!live && !set) continue
    const absent = status === 'absent'
    const unused = used.length > 0 && !used.some(each => sameFamily(each, family))
    if (family === '' || (!absent && !unused)) continue
    yield {
      says:
        `New ${kindTitles[kind].toLowerCase()} begins in ${family}, which ` +
        (absent ? 'is absent' : 'no text of the document is set in'),
      severity: absent ? 'error' : 'warning',
      ...(main === null
        ? {}
        : { repair: { wishes: [{ type: 'start' as const, kind, values: { fonts: { western: { family: main } } } }] } }),
    }
  }
}

export const waitingDefaults = check({
  id: 'waiting-default',
  group: 'faces',
  title: 'Old face waiting in the defaults',
  severity: 'warning',
  looksFor: 'Defaults for new text that name a face which is absent, or which nothing in the document is set in.',
  source: 'What new text begins with, as the Defaults tab lists it.',
  unseen: 'What other programs begin with by themselves. Put right by the family that most text is set in.',
  find: waiting,
})
