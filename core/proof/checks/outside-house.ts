import { allowedFamilies } from '../../house/allowed-families'
import { check, type Found } from '../check'
import { seenRuns, type Subject } from '../subject'

function* outside(subject: Subject): Generator<Found> {
  const { house } = subject
  const isAllowed = house && allowedFamilies(house)
  if (!isAllowed) return
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
