import { startTag, textMarkup } from './edit'
import type { IdRuns, XmlElement, XmlPart } from './tree'

/** Ids of the nodes that changed and of everything above them. */
function changedPaths(part: XmlPart): Set<number> {
  const paths = new Set<number>()
  for (const id of part.touched()) {
    for (
      let node = part.find(id);
      node && !paths.has(node.id);
      node = node.parent < 0 ? undefined : part.find(node.parent)
    )
      paths.add(node.id)
  }
  return paths
}

function rawName(element: XmlElement): string {
  return /^<([^\s/>]+)/.exec(startTag(element))![1]!
}

/**
 * The source of a part as it is now. What nobody touched is copied from the source slice by slice: character
 * references, quotes, comments and white space included.
 */
export function writeXml(part: XmlPart): string {
  return part.changed ? writeNodes(part, part.top, changedPaths(part)) : part.source
}

/** The source of one element with everything in it, as it is now. */
export function writeElement(part: XmlPart, id: number): string {
  // Only what is below it is looked at: moving one node of a part that has changed in ten thousand places is cheap.
  const paths = new Set<number>()
  const look = (at: number): boolean => {
    const node = part.node(at)
    let changed = part.isTouched(at)
    if (node.kind === 'element') for (const child of node.children) changed = look(child) || changed
    if (changed) paths.add(at)
    return changed
  }
  look(id)
  return writeNodes(part, [id], paths)
}

function writeNodes(part: XmlPart, ids: readonly number[], paths: ReadonlySet<number>): string {
  const pieces: string[] = []
  const write = (id: number): void => {
    const node = part.node(id)
    if (!paths.has(id) || node.kind === 'other') {
      pieces.push(node.source.slice(node.start, node.end))
      return
    }
    if (node.kind === 'text') {
      pieces.push(textMarkup(node))
      return
    }
    const tag = startTag(node)
    if (node.children.length === 0) {
      pieces.push(tag)
      if (!tag.endsWith('/>'))
        pieces.push(node.contentEnd < node.end ? node.source.slice(node.contentEnd, node.end) : `</${rawName(node)}>`)
      return
    }
    pieces.push(tag.endsWith('/>') ? `${tag.slice(0, -2).trimEnd()}>` : tag)
    node.children.forEach(write)
    pieces.push(node.contentEnd < node.end ? node.source.slice(node.contentEnd, node.end) : `</${rawName(node)}>`)
  }
  ids.forEach(write)
  return pieces.join('')
}

/**
 * Which id each node has when the part is written and parsed again. Together with `writeXml` it carries a part over
 * to the next session: `parseXml(path, writeXml(part), { ids: idRuns(part) })` is the same tree.
 */
export function idRuns(part: XmlPart): IdRuns {
  const runs: [number, number, number][] = []
  let index = 0
  const visit = (id: number): void => {
    const last = runs[runs.length - 1]
    if (last && last[1] + last[2] === id) last[2]++
    else runs.push([index, id, 1])
    index++
    const node = part.node(id)
    if (node.kind === 'element') node.children.forEach(visit)
  }
  part.top.forEach(visit)
  return runs
}
