import {
  emptyFrame,
  holdsFrames,
  putFrame,
  putStyle,
  takeFrame,
  takeStyle,
  type StyleNames,
} from '../../document/kept-frame'
import type { Reading } from '../../style/reading'
import { readFrameText } from '../../style/frame-text'
import type { SetPiece } from '../../style/set-piece'
import { PlanError } from '../plan'
import { makeStyle } from '../styles/edit-style'
import { importWishes } from '../styles/import-styles'
import type { Planner } from '../planner'
import { styleDetail, type StyleDetail } from '../styles/style-detail'

/** Takes a text frame or shape of a document as a set piece. @throws PlanError for what holds pictures or objects */
export function takePiece(reading: Reading, path: string, node: number): SetPiece {
  const scope = reading.cascade.scope(path)
  const frame = takeFrame(scope, node)
  if (frame === 'no frame') throw new PlanError('This frame is no longer in the document. Nothing was kept.')
  if (frame === 'holds a picture')
    throw new PlanError(
      'This frame holds a picture or an object. Only frames of text are kept as set pieces. Nothing was kept.',
    )
  const automatic = new Map<string, SetPiece['automatic'][number]>()
  const named = new Map<string, StyleDetail>()
  const take = (family: string, styleName: string): void => {
    const key = `${family}\n${styleName}`
    const own = scope.automatic.get(key)
    if (own) {
      if (automatic.has(key)) return
      automatic.set(key, { family, name: styleName, markup: takeStyle(scope, own.node) })
      if (own.parentName !== null) take(family, own.parentName)
      return
    }
    if ((family !== 'paragraph' && family !== 'text') || named.has(key)) return
    const detail = styleDetail(reading, family, styleName)
    if (!detail) return
    named.set(key, detail)
    if (detail.parent !== null) take(family, detail.parent)
  }
  for (const each of frame.styles) take(each.family, each.name)
  return {
    frame: frame.markup,
    width: frame.width || 200 + readFrameText(scope, node).inset,
    height: frame.height || 80,
    automatic: [...automatic.values()],
    styles: keptStyles([...named.values()]),
  }
}

/** Named styles as wishes that make them elsewhere. */
function keptStyles(details: readonly StyleDetail[]): SetPiece['styles'] {
  const chosen = details.map(each => ({ family: each.family, name: each.name, how: 'both' as const }))
  return importWishes(details, [], chosen, '').flatMap(wish => {
    if (wish.type !== 'make') return []
    const { family, displayName, changes } = wish
    const { name } = details.find(each => each.family === family && each.displayName === displayName)!
    return [{ family, name, displayName, changes }]
  })
}

/**
 * Puts a set piece on a drawn page or at a paragraph of a text, with its words or one empty paragraph.
 * @throws PlanError
 */
export function putPiece(
  planner: Planner,
  piece: SetPiece,
  path: string,
  holder: number,
  place: { readonly x: number; readonly y: number },
  withText: boolean,
): void {
  const draft = planner.change.on(path)
  if (!holdsFrames(draft, holder))
    throw new PlanError('A set piece is put on a page or at a paragraph. Nothing was changed.')
  const known = namedHere(planner, piece)
  const names: StyleNames = (family, name) =>
    known.get(`${family}\n${name}`) ?? (planner.scope.common.has(`${family}\n${name}`) ? name : null)
  for (const style of [...piece.automatic].reverse()) {
    const made = putStyle(draft, planner.reading.cascade.scope(path), style, names)
    if (made === null) throw new PlanError('This document has no place for styles by hand. Nothing was changed.')
    known.set(`${style.family}\n${style.name}`, made)
  }
  const frame = putFrame(draft, holder, piece.frame, place, names)
  if (!withText) emptyFrame(draft, frame)
  planner.row({
    key: { what: 'kept frame', part: path, node: frame },
    stage: 'frame',
    title: 'Kept frame',
    before: 'not there',
    after: `put in ${withText ? 'with its text' : 'without text'}`,
    places: [{ part: path, node: frame }],
  })
}

/** The names here of the named styles of a set piece, by family and name there: those that are missing are made. */
function namedHere(planner: Planner, piece: SetPiece): Map<string, string> {
  const names = new Map<string, string>()
  for (const style of piece.styles) {
    const key = `${style.family}\n${style.name}`
    const own = [...planner.scope.common.values()].find(
      each => each.family === style.family && each.displayName.toLowerCase() === style.displayName.toLowerCase(),
    )
    if (own) {
      names.set(key, own.name)
      continue
    }
    const { parent } = style.changes
    const made = makeStyle(planner, style.family, style.displayName, {
      ...style.changes,
      ...(parent == null ? {} : { parent: planner.scope.common.has(`${style.family}\n${parent}`) ? parent : null }),
    })
    names.set(key, made.name)
    planner.reread()
  }
  return names
}
