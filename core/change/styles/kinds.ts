import { setFrameStyle } from '../../document/frame-verbs'
import type { OdfDocument } from '../../document/open'
import { readScopes } from '../../document/styles'
import { groupOf } from '../../style/groups'
import { oneByOne, type Kind } from '../kind'
import { PlanError } from '../plan'
import { boundTo, scopeWords } from '../scope'
import { counted } from '../words'
import { adopt, teach } from './adopt'
import { applyParagraphStyle, applyTextStyle } from './assign'
import { editStyle, makeStyle } from './edit-style'
import { familyName } from '../../style/families'
import { foldStyle, foldVoice } from './fold'
import { settle, settleTitle } from './settle'
import * as wishes from './wishes'

const most = 50

/** Whether a document has a common style of a name. */
function hasStyle(document: OdfDocument, family: string, name: string): boolean {
  const { styles } = readScopes(document, document.subdocuments[0]!)
  return styles?.common.has(`${family}\n${name}`) ?? false
}

export const settleKind = oneByOne<wishes.SettleWish>({
  type: 'settle',
  schema: wishes.settleSchema,
  most,
  act(planner, wish) {
    const own = planner.rows.length
    settle(planner, wish.scope.kind === 'document' ? null : planner.stretches(wish.scope), {
      groups: wish.groups,
      keep: wish.keep,
      idleOnly: wish.idleOnly,
    })
    return settleTitle(wish.groups, wish.idleOnly, planner.totals(own).places)
  },
  sentence({ groups, idleOnly, scope }, titleOf) {
    const named = groups.length > 6 ? 'local formatting' : groups.map(group => groupOf(group).title).join(', ')
    const where = scopeWords(scope, titleOf)
    return idleOnly ? `Sweep out ${named} that changes nothing, ${where}.` : `Settle ${named} ${where}.`
  },
  whyNotMany: ({ scope }) => boundTo(scope),
})

export const applyKind = oneByOne<wishes.ApplyWish>({
  type: 'apply',
  schema: wishes.applySchema,
  most,
  act(planner, wish) {
    const own = planner.rows.length
    const stretches = planner.stretches(wish.scope)
    const { family, name } = wish.style
    if (family === 'text') applyTextStyle(planner, stretches, name, wish.strays, wish.keep)
    else {
      if (name === null) throw new PlanError('A paragraph always has a style. Choose one. Nothing was changed.')
      applyParagraphStyle(planner, stretches, name, wish.strays, wish.keep)
      if (wish.scope.kind === 'frame') setFrameStyle(planner.change.on(wish.scope.part), wish.scope.node, name)
    }
    const { places } = planner.totals(own)
    const amount = family === 'text' ? counted(places, 'stretch', 'stretches') : counted(places, 'paragraph')
    return name === null
      ? `Take the character style of ${amount} away`
      : `Give ${amount} the style ${planner.style(family, name).displayName}`
  },
  sentence: ({ style, scope }, titleOf = name => name) =>
    style.name === null
      ? `Take character styles away ${scopeWords(scope, titleOf)}.`
      : `Give text ${scopeWords(scope, titleOf)} the ${familyName(style.family)} ${titleOf(style.name)}.`,
  whyNotMany: ({ scope }) => boundTo(scope),
})

export const adoptKind = oneByOne<wishes.AdoptWish>({
  type: 'adopt',
  schema: wishes.adoptSchema,
  most,
  act(planner, wish) {
    const style = adopt(planner, wish.family, wish.displayName, planner.stretches(wish.scope))
    planner.made.push({ family: wish.family, ...style })
    return `Make the style ${style.displayName} of how text looks`
  },
  sentence: wish =>
    `Make the ${familyName(wish.family)} ${wish.displayName} of how text looks ${scopeWords(wish.scope)}.`,
  whyNotMany: ({ scope }) => boundTo(scope),
})

export const teachKind = oneByOne<wishes.TeachWish>({
  type: 'teach',
  schema: wishes.teachSchema,
  most,
  act: (planner, wish) => `Teach the style ${teach(planner, planner.stretches(wish.scope))} how text looks`,
  sentence: ({ scope }) => `Teach the style of text ${scopeWords(scope)} how it looks.`,
  whyNotMany: ({ scope }) => boundTo(scope),
})

export const editKind = oneByOne<wishes.EditWish>({
  type: 'edit',
  schema: wishes.editSchema,
  most,
  act(planner, { family, name, changes }) {
    const before = planner.style(family, name).displayName
    editStyle(planner, family, name, changes)
    return changes.displayName !== undefined && changes.displayName !== before
      ? `Rename the style ${before} to ${changes.displayName}`
      : `Change the style ${before}`
  },
  sentence: ({ family, name }, titleOf = each => each) => `Change the ${familyName(family)} ${titleOf(name)}.`,
  applies: (document, { family, name }) => hasStyle(document, family, name),
})

export const makeKind = oneByOne<wishes.MakeWish>({
  type: 'make',
  schema: wishes.makeSchema,
  most,
  act(planner, { family, displayName, changes }) {
    const style = makeStyle(planner, family, displayName, changes)
    planner.made.push({ family, ...style })
    return `Make the style ${style.displayName}`
  },
  sentence: ({ family, displayName }) => `Make the ${familyName(family)} ${displayName}.`,
})

export const foldKind = oneByOne<wishes.FoldWish>({
  type: 'fold',
  schema: wishes.foldSchema,
  most,
  act(planner, { family, from, to }) {
    const { displayName } = planner.style(family, from)
    const other = foldStyle(planner, family, from, to)
    return other === null ? `Delete the style ${displayName}` : `Fold the style ${displayName} into ${other}`
  },
  sentence: ({ family, from, to }, titleOf = name => name) =>
    to === null
      ? `Delete the ${familyName(family)} ${titleOf(from)}.`
      : `Fold the ${familyName(family)} ${titleOf(from)} into ${titleOf(to)}.`,
  applies: (document, { family, from }) => hasStyle(document, family, from),
})

export const foldVoiceKind = oneByOne<wishes.FoldVoiceWish>({
  type: 'fold-voice',
  schema: wishes.foldVoiceSchema,
  most,
  act(planner, { from, to }) {
    foldVoice(planner, from, to)
    return 'Fold one voice into another'
  },
  sentence: () => 'Fold one voice into another.',
})

export const styleKinds: readonly Kind[] = [
  settleKind,
  applyKind,
  adoptKind,
  teachKind,
  editKind,
  makeKind,
  foldKind,
  foldVoiceKind,
]
