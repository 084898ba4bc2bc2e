import { elementMarkup, setAttributes, startTag, subtreeIds } from '../xml/edit'
import type { XmlElement, XmlPart } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'
import { lengthMarkup, points } from './lengths'
import { EditRefusal } from './refusals'
import { readRules } from './rules'

/** Where something lies, in points from the page's top left. */
export interface FramePlace {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** How text stands in a frame: columns with the gap between them, and the inset on every side. Lengths in points. */
export interface FrameText {
  readonly columns: number
  readonly gap: number
  readonly inset: number
}

type Attributes = Readonly<Record<string, string>>
const isLine = (name: string) => name === 'draw:line' || name === 'draw:connector' || name === 'draw:measure'

/** Sets attributes of an element, as an operation with its inverse. */
function attribute(draft: Draft, node: number, set: Readonly<Record<string, string | null>>): void {
  const next = setAttributes(draft.part, node, set)
  draft.setTag(node, startTag(next.element(node)))
}

/** A length of the file in points; 0 where none is said. */
const lengthOf = (value: string | undefined): number => points(value) ?? 0

/** Moves a shape by a distance, with all that is in it. */
function shift(draft: Draft, node: number, dx: number, dy: number): void {
  const { name, attributes } = draft.part.element(node)
  if (name === 'draw:g' || name === 'draw:a') {
    for (const child of [...draft.part.elements(draft.part.element(node))])
      if (child.name.startsWith('draw:') && child.name !== 'draw:glue-point') shift(draft, child.id, dx, dy)
    return
  }
  if (isLine(name)) {
    const end = (name: string, by: number) => lengthMarkup(lengthOf(attributes[name]) + by)
    // A connector's path is drawn anew from its ends.
    attribute(draft, node, {
      'svg:x1': end('svg:x1', dx),
      'svg:y1': end('svg:y1', dy),
      'svg:x2': end('svg:x2', dx),
      'svg:y2': end('svg:y2', dy),
      ...(attributes['svg:d'] === undefined ? {} : { 'svg:d': null }),
    })
    return
  }
  // What is turned is moved after its turn: maps are applied in order (ODF 1.4 part 3, 19.228).
  if (attributes['draw:transform'] !== undefined)
    attribute(draft, node, {
      'draw:transform': `${attributes['draw:transform']} translate(${lengthMarkup(dx)} ${lengthMarkup(dy)})`,
    })
  else
    attribute(draft, node, {
      ...moved(attributes, 'svg:x', dx),
      ...moved(attributes, 'svg:y', dy),
      ...middle(attributes, dx, dy),
    })
}

/** A length moved by a distance. What is round may say its place by its middle alone. */
const moved = (attributes: Attributes, name: string, by: number): Record<string, string> =>
  attributes[name] === undefined && attributes['svg:cx'] !== undefined
    ? {}
    : { [name]: lengthMarkup(lengthOf(attributes[name]) + by) }

/** The middle of what is round, moved by a distance; nothing where the file does not say it. */
const middle = (attributes: Attributes, dx: number, dy: number): Record<string, string> =>
  attributes['svg:cx'] === undefined
    ? {}
    : {
        'svg:cx': lengthMarkup(lengthOf(attributes['svg:cx']) + dx),
        'svg:cy': lengthMarkup(lengthOf(attributes['svg:cy']) + dy),
      }

/**
 * Puts a frame or shape somewhere and gives it a size. `from` is where it lies now, as the pages show it.
 * @throws EditRefusal for what has no place of its own
 */
export function placeFrame(draft: Draft, node: number, from: FramePlace, to: FramePlace): void {
  const element = draft.part.element(node)
  const { name, attributes } = element
  if (attributes['text:anchor-type'] === 'as-char' && (to.x !== from.x || to.y !== from.y))
    throw new EditRefusal(
      'This frame stands in a line like a letter: it moves with its text. Its size can be changed. Nothing was changed.',
    )
  if (to.x !== from.x || to.y !== from.y) shift(draft, node, to.x - from.x, to.y - from.y)
  if (to.width === from.width && to.height === from.height) return
  if (name === 'draw:g' || name === 'draw:a')
    throw new EditRefusal('The size of a group follows from what is in it. Nothing was changed.')
  if (isLine(name)) throw new EditRefusal('A line has ends, not a size. Nothing was changed.')
  const { attributes: now } = draft.part.element(node)
  // On a rectangle svg:rx rounds its corners: only what is round has it as its size, and its middle moves as it grows.
  const isRound = name === 'draw:circle' || name === 'draw:ellipse'
  const hasRadius = isRound && (now['svg:r'] !== undefined || now['svg:rx'] !== undefined)
  attribute(draft, node, {
    ...(isRound ? middle(now, (to.width - from.width) / 2, (to.height - from.height) / 2) : {}),
    ...(hasRadius
      ? { 'svg:r': null, 'svg:rx': lengthMarkup(to.width / 2), 'svg:ry': lengthMarkup(to.height / 2) }
      : {}),
    ...(hasRadius && now['svg:width'] === undefined
      ? {}
      : {
          'svg:width': lengthMarkup(to.width),
          'svg:height': lengthMarkup(to.height),
          'style:rel-width': null,
          'style:rel-height': null,
        }),
  })
  const box = draft.part.first(draft.part.element(node), 'draw:text-box')
  if (box?.attributes['fo:min-height'] !== undefined)
    attribute(draft, box.id, { 'fo:min-height': lengthMarkup(to.height) })
}

/** A name that nothing of its kind has yet. */
export function freeName(part: XmlPart, stem: string, attributeName: string): string {
  const taken = new Set<string>()
  for (const element of part.descendants()) {
    const name = element.attributes[attributeName]
    if (name !== undefined) taken.add(name)
  }
  let number = 1
  while (taken.has(`${stem}${number}`)) number++
  return `${stem}${number}`
}

function automaticStyles(draft: Draft): XmlElement {
  const found = draft.part.first(draft.part.rootElement, 'office:automatic-styles')
  if (found) return found
  const root = draft.part.rootElement
  const body = root.children.findIndex(id => {
    const child = draft.part.node(id)
    return child.kind === 'element' && (child.name === 'office:body' || child.name === 'office:master-styles')
  })
  const id = draft.insert(root.id, Math.max(body, 0), elementMarkup(draft.part, root, 'office:automatic-styles', {}), 1)
  return draft.part.element(id)
}

/** The markup of columns for a style. */
const columnsMarkup = (draft: Draft, holder: XmlElement, { columns, gap }: FrameText) =>
  elementMarkup(draft.part, holder, 'style:columns', {
    'fo:column-count': String(columns),
    'fo:column-gap': lengthMarkup(gap),
  })

/** Gives a frame a style of its own, made from the one it has, and returns its graphic properties' element. */
function ownGraphic(draft: Draft, node: number): number {
  const { part } = draft
  const frame = part.element(node)
  const which =
    frame.attributes['presentation:style-name'] !== undefined && frame.attributes['draw:style-name'] === undefined
      ? 'presentation:style-name'
      : 'draw:style-name'
  const current = frame.attributes[which]
  const holder = automaticStyles(draft)
  const existing =
    current === undefined
      ? undefined
      : [...draft.part.elements(holder, 'style:style')].find(
          each =>
            each.attributes['style:name'] === current &&
            /^(graphic|presentation)$/.test(each.attributes['style:family'] ?? ''),
        )
  const name = freeName(draft.part, 'MorpheneFrame', 'style:name')
  let made: number
  if (existing) {
    // An automatic style is local formatting: its copy belongs to this frame alone.
    made = draft.insert(
      holder.id,
      draft.part.element(holder.id).children.length,
      writeElement(draft.part, existing.id),
      subtreeIds(draft.part, existing.id).length,
    )
    attribute(draft, made, { 'style:name': name })
  } else
    made = draft.insert(
      holder.id,
      draft.part.element(holder.id).children.length,
      elementMarkup(draft.part, holder, 'style:style', {
        'style:name': name,
        'style:family': which === 'presentation:style-name' ? 'presentation' : 'graphic',
        ...(current === undefined ? {} : { 'style:parent-style-name': current }),
      }),
      1,
    )
  attribute(draft, node, { [which]: name })
  const style = draft.part.element(made)
  const properties = draft.part.first(style, 'style:graphic-properties')
  return properties?.id ?? draft.insert(made, 0, elementMarkup(draft.part, style, 'style:graphic-properties', {}), 1)
}

/** Columns and insets of a text frame or a shape. @throws EditRefusal for groups and lines */
export function setFrameText(draft: Draft, node: number, text: FrameText): void {
  const { name } = draft.part.element(node)
  if (name === 'draw:g' || name === 'draw:a' || isLine(name))
    throw new EditRefusal('Columns and insets belong to a frame or a shape with room for text. Nothing was changed.')
  const properties = ownGraphic(draft, node)
  attribute(draft, properties, {
    'fo:padding': lengthMarkup(text.inset),
    'fo:padding-left': null,
    'fo:padding-right': null,
    'fo:padding-top': null,
    'fo:padding-bottom': null,
  })
  const element = draft.part.element(properties)
  const columns = draft.part.first(element, 'style:columns')
  if (columns) draft.remove(columns.id)
  if (text.columns > 1) draft.insert(properties, 0, columnsMarkup(draft, draft.part.element(properties), text), 1)
}

/** Puts a text frame on a drawn page, or at a paragraph of a text; returns the frame. */
export function addFrame(draft: Draft, holder: number, place: FramePlace, text: FrameText, style?: string): number {
  const target = draft.part.element(holder)
  const onPage = target.name === 'draw:page'
  if (!onPage && target.name !== 'text:p' && target.name !== 'text:h')
    throw new EditRefusal('A frame is put on a page or at a paragraph. Nothing was changed.')
  const styles = automaticStyles(draft)
  const styleName = freeName(draft.part, 'MorpheneFrame', 'style:name')
  const start = readRules(draft.document).starts.frame ?? {}
  // Where the starting type has a style for frames, it says how they are filled and how far text keeps off their edges.
  const plain: Record<string, string> =
    start.frame === undefined
      ? { 'draw:fill': 'none', 'draw:stroke': 'none', 'fo:padding': lengthMarkup(text.inset) }
      : text.inset > 0
        ? { 'fo:padding': lengthMarkup(text.inset) }
        : {}
  const graphic: Record<string, string> = {
    'draw:auto-grow-height': 'false',
    ...plain,
    'draw:textarea-vertical-align': 'top',
    ...(onPage
      ? {}
      : {
          'style:vertical-pos': 'from-top',
          'style:vertical-rel': 'page',
          'style:horizontal-pos': 'from-left',
          'style:horizontal-rel': 'page',
          'style:wrap': 'parallel',
          ...(start.frame === undefined ? { 'fo:border': 'none' } : {}),
        }),
  }
  const columns = text.columns > 1 ? columnsMarkup(draft, styles, text) : ''
  const ownStyle = elementMarkup(
    draft.part,
    styles,
    'style:style',
    {
      'style:name': styleName,
      'style:family': 'graphic',
      ...(start.frame === undefined ? {} : { 'style:parent-style-name': start.frame }),
    },
    elementMarkup(draft.part, styles, 'style:graphic-properties', graphic, columns),
  )
  draft.insert(styles.id, styles.children.length, ownStyle, columns === '' ? 2 : 3)
  const begins = style ?? start.paragraph
  const frameName = freeName(draft.part, 'Text frame ', 'draw:name')
  const box = elementMarkup(
    draft.part,
    target,
    'draw:text-box',
    {},
    elementMarkup(draft.part, target, 'text:p', begins === undefined ? {} : { 'text:style-name': begins }),
  )
  const frame = elementMarkup(
    draft.part,
    target,
    'draw:frame',
    {
      'draw:name': frameName,
      'draw:style-name': styleName,
      ...(onPage ? {} : { 'text:anchor-type': 'paragraph' }),
      'svg:x': lengthMarkup(place.x),
      'svg:y': lengthMarkup(place.y),
      'svg:width': lengthMarkup(place.width),
      'svg:height': lengthMarkup(place.height),
    },
    box,
  )
  const notes = draft.part.first(draft.part.element(holder), 'presentation:notes')
  const index = onPage
    ? notes
      ? draft.part.element(holder).children.indexOf(notes.id)
      : draft.part.element(holder).children.length
    : 0
  return draft.insert(holder, index, frame, 3)
}

/** Lets a frame's text go on in another one, or with null end in it (draw:chain-next-name, ODF 1.4 part 3, 19.123). */
export function chainFrames(draft: Draft, node: number, next: number | null): void {
  const boxOf = (id: number) => {
    const box = draft.part.first(draft.part.element(id), 'draw:text-box')
    if (!box) throw new EditRefusal('Only text frames are chained. Nothing was changed.')
    return box
  }
  const box = boxOf(node)
  if (next === null) {
    attribute(draft, box.id, { 'draw:chain-next-name': null })
    return
  }
  if (next === node) throw new EditRefusal('A frame cannot be chained to itself. Nothing was changed.')
  const target = boxOf(next)
  if (draft.part.textOf(target.id).trim() !== '')
    throw new EditRefusal('The frame to go on in has text of its own. Chain to an empty one. Nothing was changed.')
  let name = draft.part.element(next).attributes['draw:name']
  if (!name) {
    name = freeName(draft.part, 'Text frame ', 'draw:name')
    attribute(draft, next, { 'draw:name': name })
  }
  const boxes = [...draft.part.descendants()].filter(each => each.name === 'draw:text-box')
  if (boxes.some(each => each.id !== box.id && each.attributes['draw:chain-next-name'] === name))
    throw new EditRefusal('Another frame goes on in that one already. Nothing was changed.')
  // Round and round would never end.
  for (let at: XmlElement | undefined = target, steps = 0; at && steps < 1000; steps++) {
    const after: string | undefined = at.attributes['draw:chain-next-name']
    if (after !== undefined && after === draft.part.element(node).attributes['draw:name'])
      throw new EditRefusal('These frames would go on in each other without an end. Nothing was changed.')
    at =
      after === undefined
        ? undefined
        : boxes.find(each => draft.part.element(each.parent).attributes['draw:name'] === after)
  }
  attribute(draft, box.id, { 'draw:chain-next-name': name })
}

/** Takes a frame or shape away, with what is in it; frames that went on in it end before it. */
export function removeFrame(draft: Draft, node: number): void {
  const element = draft.part.element(node)
  if (!element.name.startsWith('draw:') && !element.name.startsWith('dr3d:'))
    throw new EditRefusal('This is no frame. Nothing was changed.')
  const name = element.attributes['draw:name']
  const after = draft.part.first(element, 'draw:text-box')?.attributes['draw:chain-next-name'] ?? null
  for (const box of [...draft.part.descendants()])
    if (name && box.name === 'draw:text-box' && box.attributes['draw:chain-next-name'] === name && box.parent !== node)
      attribute(draft, box.id, { 'draw:chain-next-name': after })
  const { parent } = element
  draft.remove(node)
  draft.mergeTexts(parent)
}
