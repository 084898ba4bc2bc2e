import { subtreeIds } from '../xml/edit'
import type { XmlPart } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'
import { freeName } from './edit-layout'
import { lengthMarkup, points } from './lengths'

/*
 * What can be said to a frame or shape besides where it lies (edit-layout.ts), and what becomes of it in the file.
 */

/** Whether a frame follows a placeholder of its master, and so its styles. */
export function followsPlaceholder(part: XmlPart, frame: number): boolean {
  const { attributes } = part.element(frame)
  return attributes['presentation:class'] !== undefined || attributes['presentation:style-name'] !== undefined
}

/** The style of what is written into a frame later (draw:text-style-name, ODF 1.4 part 3, 19.217). */
export function setFrameStyle(draft: Draft, frame: number, style: string): void {
  if (draft.part.element(frame).name.startsWith('draw:')) draft.setAttributes(frame, { 'draw:text-style-name': style })
}

/** Makes a frame higher by so many points, but not lower than one: its width and place stay. */
export function growFrame(draft: Draft, frame: number, by: number): void {
  const grown = (height: number) => lengthMarkup(Math.max(height + by, 1))
  const height = points(draft.part.element(frame).attributes['svg:height'])
  if (height !== null) draft.setAttributes(frame, { 'svg:height': grown(height), 'style:rel-height': null })
  const box = draft.part.first(draft.part.element(frame), 'draw:text-box')
  const least = points(box?.attributes['fo:min-height'])
  if (box && least !== null) draft.setAttributes(box.id, { 'fo:min-height': grown(least) })
}

/**
 * Puts a copy of a frame behind it, with a name of its own and no chain. Returns which node of the copy came of which:
 * by the frame's own nodes.
 */
export function copyFrame(draft: Draft, frame: number): ReadonlyMap<number, number> {
  const element = draft.part.element(frame)
  const nodes = subtreeIds(draft.part, frame)
  const copy = draft.newIds(nodes.length)
  // Ids are said once in a file.
  const source = writeElement(draft.part, frame).replace(/\s(xml:id|text:id|draw:id)="[^"]*"/g, '')
  draft.place(element.parent, draft.indexOf(frame) + 1, source, copy)
  const stem = (element.attributes['draw:name'] ?? 'Text frame').replace(/ ?\d+$/, '')
  draft.setAttributes(copy[0]!, { 'draw:name': freeName(draft.part, `${stem} `, 'draw:name') })
  const box = draft.part.first(draft.part.element(copy[0]!), 'draw:text-box')
  if (box?.attributes['draw:chain-next-name'] !== undefined)
    draft.setAttributes(box.id, { 'draw:chain-next-name': null })
  return new Map(nodes.map((id, at) => [id, copy[at]!]))
}
