import { nameHint } from '../../style/roles'
import { check, type Found } from '../check'
import { wholeOf, type Subject } from '../subject'

function* named({ texts }: Subject): Generator<Found> {
  const seen = new Set<string>()
  for (const text of texts) {
    const { owner } = text
    if (!owner || seen.has(owner.name)) continue
    seen.add(owner.name)
    const hint = nameHint(owner.displayName)
    if (hint !== null) yield { says: `The style “${owner.displayName}” ${hint}`, at: wholeOf(text) }
  }
}

export const styleNames = check({
  id: 'style-name',
  group: 'consistency',
  title: 'Style with a name that says nothing',
  severity: 'note',
  looksFor: 'Styles in use whose names do not say what they are for.',
  source: 'The name alone.',
  stage: 'styles',
  unseen: 'Names that say something wrong. Styles are renamed in the Styles tab.',
  find: named,
})
