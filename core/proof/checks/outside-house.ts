import { sameFamily } from '../../document/font-family'
import { weightBeyond } from '../../font/named-weight'
import { settingsOf } from '../../house/house'
import { familiesOfSetting } from '../../house/setting-values'
import { check, type Found } from '../check'
import { seenRuns, type Subject } from '../subject'

function* outside(subject: Subject): Generator<Found> {
  const { house } = subject
  if (!house) return
  const allowed = [
    ...house.faces.map(each => each.family),
    ...house.roles.flatMap(settingsOf).flatMap(setting => Object.values(familiesOfSetting(setting))),
  ].filter(each => each !== undefined)
  if (allowed.length === 0) return
  const known = new Map<string, boolean>()
  const isAllowed = (family: string) => {
    const is =
      known.get(family) ?? allowed.some(each => sameFamily(each, family) || weightBeyond(family, each) !== null)
    known.set(family, is)
    return is
  }
  for (const text of subject.texts)
    for (const { run, values } of seenRuns(text))
      if (!isAllowed(values.font.family))
        yield {
          says: `${values.font.family || 'a font without a name'} is not of the house ${house.name}`,
          at: { text, from: run.start, to: run.end },
        }
}

export const outsideHouse = check({
  id: 'outside-house',
  group: 'faces',
  title: 'Face outside the house',
  severity: 'warning',
  looksFor: 'Text in a family that is neither among the faces of the house nor named by one of its roles.',
  source: 'The house that the document is held against.',
  stage: 'house',
  unseen: 'Pictures of text. A document without a house is not looked at.',
  find: outside,
})
