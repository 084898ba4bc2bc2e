import { z } from 'zod'
import { adoptedMarkup, canonicalMarkup } from '../../xml/canonical'
import type { XmlElement } from '../../xml/tree'
import { lengthMarkup, freeName } from '../../document/edit-layout'
import { referencedFamily, referencesIn } from '../../document/style-references'
import type { Reading } from '../../style/reading'
import { readFrameText } from '../../style/frame-text'
import { PlanError } from '../plan'
import { makeStyle } from '../styles/edit-style'
import { importWishes } from '../styles/import-styles'
import type { Planner } from '../planner'
import { styleDetail, type StyleDetail } from '../styles/style-detail'
import { styleChangesSchema } from '../styles/style-changes'

const name = z.string().min(1).max(500)

/** A set piece: a frame with its columns, insets and styles, kept for re-use in any document. */
export const setPieceSchema = z.strictObject({
  /** The frame, as XML that stands by itself. */
  frame: z.string().min(1).max(400_000),
  width: z.number().min(1).max(20_000),
  height: z.number().min(1).max(20_000),
  /** Its styles by hand, with their graphic, paragraph and text properties. */
  automatic: z.array(z.strictObject({ family: name, name, markup: z.string().max(50_000) })).max(500),
  /** Named styles that it goes by: made where a document lacks them. */
  styles: z
    .array(
      z.strictObject({
        family: z.enum(['paragraph', 'text']),
        name,
        displayName: z.string().min(1).max(200),
        changes: styleChangesSchema,
      }),
    )
    .max(500),
})
export type SetPiece = z.infer<typeof setPieceSchema>

/** Takes a text frame or shape of a document as a set piece. @throws PlanError for what holds pictures or objects */
export function takePiece(reading: Reading, path: string, node: number): SetPiece {
  const { cascade } = reading
  const scope = cascade.scope(path)
  const { part } = scope
  const found = part.find(node)
  if (found?.kind !== 'element' || !found.name.startsWith('draw:'))
    throw new PlanError('This frame is no longer in the document. Nothing was kept.')
  if (
    [...part.descendants(found)].some(
      each => each.name === 'draw:image' || each.name.startsWith('draw:object') || each.name === 'draw:plugin',
    )
  )
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
      automatic.set(key, { family, name: styleName, markup: canonicalMarkup(part, part.element(own.node)) })
      if (own.parentName !== null) take(family, own.parentName)
      return
    }
    if ((family !== 'paragraph' && family !== 'text') || named.has(key)) return
    const detail = styleDetail(reading, family, styleName)
    if (!detail) return
    named.set(key, detail)
    if (detail.parent !== null) take(family, detail.parent)
  }
  for (const reference of referencesIn(part, found)) for (const each of reference.names) take(reference.family, each)
  const text = readFrameText(scope, node)
  const points = (value: string | undefined) => {
    const match = /^([\d.]+)(cm|mm|in|pt)$/.exec(value ?? '')
    return match ? Number(match[1]) * ({ cm: 72 / 2.54, mm: 72 / 25.4, in: 72, pt: 1 } as const)[match[2] as 'cm']! : 0
  }
  const details = [...named.values()]
  const wishes = importWishes(
    details,
    [],
    details.map(each => ({ family: each.family, name: each.name, how: 'both' as const })),
    '',
  )
  return {
    frame: canonicalMarkup(part, found),
    width: points(found.attributes['svg:width']) || 200 + text.inset,
    height:
      points(found.attributes['svg:height']) ||
      points(part.first(found, 'draw:text-box')?.attributes['fo:min-height']) ||
      80,
    automatic: [...automatic.values()],
    styles: wishes.flatMap(wish =>
      wish.type === 'make'
        ? [
            {
              family: wish.family,
              name: details.find(each => each.family === wish.family && each.displayName === wish.displayName)!.name,
              displayName: wish.displayName,
              changes: wish.changes,
            },
          ]
        : [],
    ),
  }
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
  const target = planner.change.part(path).find(holder)
  if (target?.kind !== 'element' || !['draw:page', 'text:p', 'text:h'].includes(target.name))
    throw new PlanError('A set piece is put on a page or at a paragraph. Nothing was changed.')
  const onPage = target.name === 'draw:page'
  /** Names here, by family and name in the piece. */
  const names = new Map<string, string>()
  for (const style of piece.styles) {
    const own = [...planner.scope.common.values()].find(
      each => each.family === style.family && each.displayName.toLowerCase() === style.displayName.toLowerCase(),
    )
    if (own) {
      names.set(`${style.family}\n${style.name}`, own.name)
      continue
    }
    const parent = style.changes.parent
    const made = makeStyle(planner, style.family, style.displayName, {
      ...style.changes,
      ...(parent == null ? {} : { parent: planner.scope.common.has(`${style.family}\n${parent}`) ? parent : null }),
    })
    names.set(`${style.family}\n${style.name}`, made.name)
    planner.reread()
  }
  const draft = planner.change.on(path)
  const automatic = draft.part.first(draft.part.rootElement, 'office:automatic-styles')
  if (!automatic && piece.automatic.length > 0)
    throw new PlanError('This document has no place for styles by hand. Nothing was changed.')
  for (const style of [...piece.automatic].reverse()) {
    const fresh = freeName(
      draft.part,
      style.family === 'paragraph' ? 'P' : style.family === 'text' ? 'T' : 'gr',
      'style:name',
    )
    const holderElement = draft.part.element(automatic!.id)
    const { markup, count } = adoptedMarkup(draft.part, holderElement, style.markup, (element, attribute, value) => {
      if (attribute === 'style:name') return fresh
      if (attribute === 'style:parent-style-name')
        return (
          names.get(`${style.family}\n${value}`) ??
          (planner.scope.common.has(`${style.family}\n${value}`) ? value : null)
        )
      if (/^style:font-name/.test(attribute) && element.name === 'style:text-properties')
        return planner.reading.cascade.scope(path).faces.has(value) ? value : null
      return attribute === 'style:list-style-name' || attribute === 'style:master-page-name' ? null : value
    })
    draft.insert(automatic!.id, holderElement.children.length, markup, count)
    names.set(`${style.family}\n${style.name}`, fresh)
  }
  const host = draft.part.element(holder)
  const rename = (element: XmlElement, attribute: string, value: string): string | null => {
    if (attribute === 'draw:name')
      return freeName(draft.part, `${value.replace(/ ?\d+$/, '') || 'Set piece'} `, 'draw:name')
    if (
      /^(svg:x|svg:y|text:anchor|draw:(z-index|chain-next-name|layer|transform)|presentation:(class|placeholder))/.test(
        attribute,
      )
    )
      return null
    const which =
      attribute === 'draw:style-name' || attribute === 'presentation:style-name'
        ? ['graphic', 'presentation']
        : [referencedFamily(draft.part, element, attribute)]
    if (which[0] === null) return attribute === 'text:style-name' && element.name === 'text:list' ? null : value
    const found = which.map(family => names.get(`${family}\n${value}`)).find(each => each !== undefined)
    return found ?? (planner.scope.common.has(`${which[0]}\n${value}`) ? value : null)
  }
  const { markup, count } = adoptedMarkup(draft.part, host, piece.frame, rename)
  const notes = draft.part.first(host, 'presentation:notes')
  const frame = draft.insert(
    holder,
    onPage ? (notes ? host.children.indexOf(notes.id) : host.children.length) : 0,
    markup,
    count,
  )
  draft.setAttributes(frame, {
    'svg:x': lengthMarkup(place.x),
    'svg:y': lengthMarkup(place.y),
    ...(onPage ? {} : { 'text:anchor-type': 'paragraph' }),
  })
  if (!withText) {
    const box = draft.part.first(draft.part.element(frame), 'draw:text-box') ?? draft.part.element(frame)
    const blocks = [...draft.part.elements(box)].filter(
      each => each.name.startsWith('text:') || each.name === 'table:table',
    )
    const first = [...draft.part.descendants(box)].find(each => each.name === 'text:p' || each.name === 'text:h')
    const style = first?.attributes['text:style-name']
    for (const block of blocks) draft.remove(block.id)
    draft.mergeTexts(box.id)
    draft.insert(
      box.id,
      draft.part.element(box.id).children.length,
      adoptedMarkup(
        draft.part,
        draft.part.element(box.id),
        `<text:p xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"/>`,
      ).markup,
      1,
    )
    if (style) {
      const made = [...draft.part.elements(draft.part.element(box.id), 'text:p')].at(-1)!
      draft.setAttributes(made.id, { 'text:style-name': style })
    }
  }
  planner.row({
    key: { what: 'kept frame', part: path, node: frame },
    stage: 'frame',
    title: 'Kept frame',
    before: 'not there',
    after: `put in ${withText ? 'with its text' : 'without text'}`,
    places: [{ part: path, node: frame }],
  })
}
