import { elementMarkup } from '../../xml/edit'
import { manifestPath, type OdfDocument } from '../../document/open'
import { readRules, rulesPath, rulesWith } from '../../document/rules'
import type { Library } from '../../font/library'
import { emphasisGroups, typeGroups } from '../../style/groups'
import type { Reading } from '../../typeset/compose'
import { PlanError } from '../plan'
import { dropStale } from '../stale'
import { counted } from '../words'
import { adopt, teach } from './adopt'
import { applyParagraphStyle, applyTextStyle, applyToFrame } from './assign'
import { editStyle, makeStyle } from './edit-style'
import { foldStyle, foldVoice } from './fold'
import type { StylePlan } from './plan'
import { showAll, showAlone, splitFrames } from './languages'
import { setRules, syncRules, type LineEnds } from '../rules/plan-rules'
import { StylePlanner } from '../planner'
import { setStart, valuesLike } from '../defaults/plan-starts'
import { putPiece } from './set-piece'
import { settle, settleTitle } from './settle'
import type { StyleRequest, StyleWish } from './wishes'

/** A plan with the document as it would be. */
export interface PlannedStyles {
  readonly plan: StylePlan
  readonly document: OdfDocument
}

const startTitles = {
  body: 'paragraphs',
  frame: 'text frames',
  shape: 'shape labels',
  title: 'titles',
  outline1: 'outlines at level 1',
  outline2: 'outlines at level 2',
  outline3: 'outlines at level 3',
  outline4: 'outlines at level 4',
  outline5: 'outlines at level 5',
  cell: 'table cells',
  note: 'notes',
  header: 'headers and footers',
} as const

/** Carries one wish out on the planner's document, and says what it is called. @throws PlanError */
function carryOut(
  planner: StylePlanner,
  wish: StyleWish,
  made: { family: string; name: string; displayName: string }[],
): string {
  const placesBefore = planner.rows.length
  const places = () => planner.rows.slice(placesBefore).reduce((sum, row) => sum + (row.included ? row.count : 0), 0)
  switch (wish.type) {
    case 'settle': {
      settle(planner, wish.scope.kind === 'document' ? null : planner.stretches(wish.scope), {
        groups: wish.groups,
        keep: wish.keep,
        idleOnly: wish.idleOnly,
      })
      return settleTitle(wish.groups, wish.idleOnly, places())
    }
    case 'apply': {
      const stretches = planner.stretches(wish.scope)
      const { family, name } = wish.style
      if (family === 'text') applyTextStyle(planner, stretches, name, wish.strays, wish.keep)
      else {
        if (name === null) throw new PlanError('A paragraph always has a style. Choose one. Nothing was changed.')
        applyParagraphStyle(planner, stretches, name, wish.strays, wish.keep)
        if (wish.scope.kind === 'frame') applyToFrame(planner, wish.scope.part, wish.scope.node, name)
      }
      const title = name === null ? 'no character style' : planner.style(family, name).displayName
      return (
        `Gave ${counted(places(), family === 'text' ? 'stretch' : 'paragraph', family === 'text' ? 'stretches' : 'paragraphs')} ` +
        `${name === null ? title : `the style ${title}`}`
      )
    }
    case 'adopt': {
      const style = adopt(planner, wish.family, wish.displayName, planner.stretches(wish.scope))
      made.push({ family: wish.family, ...style })
      return `Made the style ${style.displayName} of how text looked`
    }
    case 'teach':
      return `Taught the style ${teach(planner, planner.stretches(wish.scope))} how text looks`
    case 'edit': {
      const before = planner.style(wish.family, wish.name).displayName
      editStyle(planner, wish.family, wish.name, wish.changes)
      return wish.changes.displayName !== undefined && wish.changes.displayName !== before
        ? `Renamed the style ${before} to ${wish.changes.displayName}`
        : `Changed the style ${before}`
    }
    case 'make': {
      const style = makeStyle(planner, wish.family, wish.displayName, wish.changes)
      made.push({ family: wish.family, ...style })
      return `Made the style ${style.displayName}`
    }
    case 'fold': {
      const { displayName } = planner.style(wish.family, wish.from)
      const to = foldStyle(planner, wish.family, wish.from, wish.to)
      return to === null ? `Deleted the style ${displayName}` : `Folded the style ${displayName} into ${to}`
    }
    case 'rules':
      setRules(planner, wish.style, wish.patterns, wish.leadIns)
      return wish.patterns.length + wish.leadIns.length === 0
        ? `Took the rules of ${planner.style('paragraph', wish.style).displayName} away`
        : `Set the rules of ${planner.style('paragraph', wish.style).displayName}`
    case 'start':
      setStart(planner, wish.kind, wish.values)
      return `Set what new ${startTitles[wish.kind]} begin with`
    case 'start-like':
      setStart(planner, wish.kind, valuesLike(planner, wish.part, wish.node, wish.offset))
      return `Set what new ${startTitles[wish.kind]} begin with, by example`
    case 'split':
      splitFrames(planner, wish.apart)
      return wish.apart.kind === 'language'
        ? `Split text in ${wish.apart.language} into frames of its own`
        : `Split ${planner.style('text', wish.apart.name).displayName} into frames of its own`
    case 'show':
      if (wish.language !== null) {
        showAlone(planner, wish.language)
        return `Showed text in ${wish.language} alone`
      }
      if (!showAll(planner)) throw new PlanError('No text is hidden so. Nothing was changed.')
      return 'Showed text in all languages'
    case 'piece':
      putPiece(planner, wish.piece, wish.part, wish.node, wish, wish.withText)
      return 'Put a set piece in'
    case 'fold-voice':
      foldVoice(planner, wish.from, wish.to)
      return 'Folded one voice into another'
  }
}

/** Writes the rules where they have changed, with their entry in the manifest. */
function writeRules(planner: StylePlanner): void {
  if (planner.rules === null) return
  const { change } = planner
  const text = rulesWith(change.document, planner.rules)
  if (JSON.stringify(planner.rules) === JSON.stringify(readRules(change.document))) return
  change.do({ type: 'write-rules', text })
  const manifest = change.document.parts.get(manifestPath)
  if (
    !manifest ||
    [...manifest.elements(manifest.rootElement)].some(each => each.attributes['manifest:full-path'] === rulesPath)
  )
    return
  const root = manifest.rootElement
  change.on(manifestPath).insert(
    root.id,
    root.children.length,
    elementMarkup(manifest, root, 'manifest:file-entry', {
      'manifest:full-path': rulesPath,
      'manifest:media-type': 'application/json',
    }),
    1,
  )
}

/**
 * Plans wishes about styles, one after the other, as one change. A pure function: the document given is not changed.
 * `lineEnds` says where first lines end, for rules that take them; without `counts` rows do not say how much text they
 * are about.
 * @throws PlanError when a wish cannot be met at all
 */
export function planStyles(
  document: OdfDocument,
  reading: Reading,
  request: StyleRequest,
  library: Library,
  lineEnds: LineEnds = () => null,
  counts = true,
): PlannedStyles {
  const planner = new StylePlanner(document, reading, library, request.struck, counts)
  const made: { family: string; name: string; displayName: string }[] = []
  const titles: string[] = []
  for (const wish of request.wishes) {
    planner.reread()
    titles.push(carryOut(planner, wish, made))
  }
  planner.reread()
  syncRules(planner, lineEnds)
  writeRules(planner)
  const stale =
    planner.change.operations.length === 0
      ? { operations: [], said: [] }
      : dropStale(planner.document, planner.change.changedParts(document))
  for (const operation of stale.operations) planner.change.do(operation)
  const included = planner.rows.filter(row => row.included)
  return {
    document: planner.document,
    plan: {
      kind: 'style',
      request,
      title: titles.length > 2 ? `${titles[0]}, and ${titles.length - 1} more` : titles.join('; '),
      rows: planner.rows,
      left: planner.left,
      stale: stale.said,
      places: included.reduce((sum, row) => sum + row.count, 0),
      characters: included.reduce((sum, row) => sum + row.characters, 0),
      operations: planner.change.operations,
      effects: null,
      made,
    },
  }
}

/** Everything settled that can be, with what is meant kept: the wish that most plans begin with. */
export const settleAll: StyleWish = {
  type: 'settle',
  scope: { kind: 'document' },
  groups: [...typeGroups],
  keep: [...emphasisGroups],
  idleOnly: false,
}
