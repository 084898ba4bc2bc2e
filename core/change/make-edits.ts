import { Change } from '../document/draft'
import { applyEdit, type Edit, type Edited, type Edits } from '../document/edits'
import type { OdfDocument } from '../document/open'
import { readRules } from '../document/rules'
import { readScopes, type StyleScope } from '../document/styles'
import type { Operation } from '../document/operations'
import { hasRules, refreshAfterEdit } from './rules/rule-spans'

/** The scopes of the document itself by part: what edits of words leave as it is. */
function scopesOf(document: OdfDocument): ReadonlyMap<string, StyleScope> {
  const { content, styles } = readScopes(document, document.subdocuments[0]!)
  return new Map([content, styles].flatMap(scope => (scope ? [[scope.part.path, scope] as const] : [])))
}

/**
 * Makes one edit, and lets the rules of the paragraphs it touched act on what is written there now. The same in browser
 * and server: new nodes take the same ids. @throws EditRefusal
 */
export function makeEdit(
  document: OdfDocument,
  edit: Edit,
  firstId: number,
  known?: ReadonlyMap<string, StyleScope>,
): Edited {
  const edited = applyEdit(document, edit, firstId)
  const rules = readRules(document)
  if (!hasRules(rules)) return edited
  const before = document.parts.get(edit.part)!
  const after = edited.document.parts.get(edit.part)!
  const touched = [...after.differences(before)].filter(id => {
    const node = after.find(id)
    return node?.kind === 'element' && (node.name === 'text:p' || node.name === 'text:h')
  })
  const change = new Change(edited.document, firstId)
  refreshAfterEdit(
    change,
    known ?? scopesOf(document),
    rules,
    edit.part,
    touched.sort((a, b) => a - b),
  )
  return {
    ...edited,
    document: change.document,
    operations: [...edited.operations, ...change.operations],
    inverse: [...change.inverse, ...edited.inverse],
  }
}

/** Makes edits in order, all or none. @throws EditRefusal */
export function makeEdits(document: OdfDocument, edits: Edits): Edited {
  const scopes = hasRules(readRules(document)) ? scopesOf(document) : undefined
  let at = document
  const operations: Operation[] = []
  const inverse: Operation[] = []
  let made: number | null = null
  for (const { edit, firstId } of edits) {
    const edited = makeEdit(at, edit, firstId, scopes)
    at = edited.document
    operations.push(...edited.operations)
    inverse.unshift(...edited.inverse)
    made = edited.made
  }
  return { document: at, operations, inverse, made }
}
