import { applyAll } from '../core/document/apply'
import { saveDocument } from '../core/document/open'
import { paragraphsOf } from '../core/document/stories'
import { DocumentSession } from '../core/session'
import { registry } from '../core/change/registry'
import { isOfText } from '../core/style/families'
import { listStyles } from '../core/change/styles/style-list'
import { settleAll, type StyleWish } from '../core/change/styles/wishes'
import { paragraphText } from '../core/style/runs'

/** What settling and folding came to in one file. */
export interface StyleCheck {
  readonly before: number
  readonly after: number
  readonly automaticBefore: number
  readonly automaticAfter: number
  readonly folded: number
  readonly written: Uint8Array
  readonly problems: readonly string[]
}

const textsOf = (session: DocumentSession) =>
  session.reading.stories.flatMap(story => paragraphsOf(story.blocks)).map(paragraphText)
const automaticOf = (session: DocumentSession) =>
  [...session.reading.cascade.scopes.values()].reduce((sum, scope) => sum + scope.automatic.size, 0)

/**
 * Settles a whole document with what is meant kept, then folds the three least used named styles into their parents:
 * the text stays to the character, everything is settled, what was written reads as what was planned, and undoing both
 * gives the file back.
 */
export function checkStyles(bytes: Uint8Array, session: DocumentSession): StyleCheck {
  const problems: string[] = []
  const settled = registry.plan(session, { wishes: [settleAll], leftOut: [] }, { effects: false })
  const rare = listStyles(settled.after.reading, session.typesetter.library, null)
    .filter(isOfText)
    .filter(style => style.parent !== null && style.paragraphs > 0)
    .sort((a, b) => a.characters - b.characters)
    .slice(0, 3)
  const wishes = rare.map((style): StyleWish => ({
    type: 'fold',
    family: style.family,
    from: style.name,
    to: style.parent,
  }))
  const folded = wishes.length > 0 ? registry.plan(settled.after, { wishes, leftOut: [] }, { effects: false }) : settled
  const written = saveDocument(folded.after.document)
  const again = DocumentSession.open(written, session.typesetter)
  const texts = textsOf(session).join('\n')
  if (textsOf(again).join('\n') !== texts) problems.push('settling and folding changed the text')
  const { census } = again.detail
  if (census.settled !== 1)
    problems.push(`after settling ${census.characters - census.settledCharacters} characters are not settled`)
  const named = [...again.reading.cascade.scopes.values()][0]?.common
  for (const style of rare)
    if (named?.has(`${style.family}\n${style.name}`))
      problems.push(`the style ${style.displayName} is still there after it was folded`)
  const first = applyAll(session.document, settled.plan.operations)
  const second =
    wishes.length > 0 ? applyAll(first.document, folded.plan.operations) : { document: first.document, inverse: [] }
  if (Buffer.compare(saveDocument(second.document), written) !== 0)
    problems.push('the operations of the plans do not give what was planned')
  const back = applyAll(applyAll(second.document, second.inverse).document, first.inverse).document
  if (Buffer.compare(saveDocument(back), bytes) !== 0)
    problems.push('undoing settling and folding does not give the file back')
  return {
    before: session.detail.census.settled,
    after: census.settled,
    automaticBefore: automaticOf(session),
    automaticAfter: automaticOf(again),
    folded: rare.length,
    written,
    problems,
  }
}
