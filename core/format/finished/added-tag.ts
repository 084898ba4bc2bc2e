import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef, type PDFObject, type PDFPage } from '@cantoo/pdf-lib'
import type { FinishedPdf } from './open'

/*
 * Added text gets its place in the structure of a tagged PDF: a paragraph at its end (ISO 32000-2, 14.7).
 */

const key = (name: string) => PDFName.of(name)
const asDict = (value: PDFObject | undefined): PDFDict | null => (value instanceof PDFDict ? value : null)
const asArray = (value: PDFObject | undefined): PDFArray | null => (value instanceof PDFArray ? value : null)
const asNumber = (value: PDFObject | undefined): number | null => (value instanceof PDFNumber ? value.asNumber() : null)

/** Number trees of files are no deeper, and as many nodes of one are looked at. */
const deepest = 12
const nodeLimit = 20_000

/** The structure of a file, where it has one that can be gone on with. */
interface Structure {
  readonly root: PDFDict
  readonly parentTree: PDFDict
  /** What added paragraphs stand in: the element of the whole document, else the root itself. */
  readonly whole: { readonly element: PDFDict; readonly reference: PDFRef }
}

function structureOf({ pdf }: Pick<FinishedPdf, 'pdf'>): Structure | null {
  const { catalog } = pdf
  const root = asDict(catalog.lookup(key('StructTreeRoot')))
  const reference = catalog.get(key('StructTreeRoot'))
  const parentTree = asDict(root?.lookup(key('ParentTree')))
  if (!root || !parentTree || !(reference instanceof PDFRef)) return null
  const kids = root.lookup(key('K'))
  const outermost = kids instanceof PDFArray ? kids.get(0) : root.get(key('K'))
  const element = outermost instanceof PDFRef ? asDict(pdf.context.lookup(outermost)) : null
  const isWhole = element !== null && String(element.get(key('S'))) === '/Document'
  return {
    root,
    parentTree,
    whole: isWhole ? { element, reference: outermost as PDFRef } : { element: root, reference },
  }
}

/** Whether added text can be given a place in the structure. */
export const hasStructure = (finished: Pick<FinishedPdf, 'pdf'>): boolean => structureOf(finished) !== null

/** The leaves of a number tree (7.9.7). */
function leavesOf(tree: PDFDict): PDFArray[] {
  const leaves: PDFArray[] = []
  let nodes = 0
  const walk = (node: PDFDict, depth: number): void => {
    if (++nodes > nodeLimit || depth > deepest) return
    const own = asArray(node.lookup(key('Nums')))
    if (own) leaves.push(own)
    const kids = asArray(node.lookup(key('Kids')))
    for (let at = 0; kids && at < kids.size(); at++) {
      const kid = asDict(kids.lookup(at))
      if (kid) walk(kid, depth + 1)
    }
  }
  walk(tree, 0)
  return leaves
}

/** What a number of a tree stands for; null where it is not there. */
function valueOf(leaves: readonly PDFArray[], number: number): PDFObject | null {
  for (const nums of leaves)
    for (let at = 0; at + 1 < nums.size(); at += 2)
      if (asNumber(nums.lookup(at)) === number) return nums.lookup(at + 1) ?? null
  return null
}

/** A list of marks for a page that has none yet, under the next number of the tree. */
function newMarks({ root, parentTree }: Structure, leaves: readonly PDFArray[], page: PDFPage): PDFArray {
  const { context } = root
  const numbers = leaves.flatMap(nums =>
    Array.from({ length: nums.size() >> 1 }, (_, at) => asNumber(nums.lookup(at * 2)) ?? -1),
  )
  const next = numbers.reduce(
    (most, each) => Math.max(most, each + 1),
    asNumber(root.lookup(key('ParentTreeNextKey'))) ?? 0,
  )
  const marks = context.obj([])
  const reference = context.register(marks)
  const own = asArray(parentTree.lookup(key('Nums')))
  const kids = asArray(parentTree.lookup(key('Kids')))
  if (kids && !own) kids.push(context.register(context.obj({ Limits: [next, next], Nums: [next, reference] })))
  else if (own) {
    own.push(PDFNumber.of(next))
    own.push(reference)
  } else parentTree.set(key('Nums'), context.obj([next, reference]))
  root.set(key('ParentTreeNextKey'), PDFNumber.of(next + 1))
  page.node.set(key('StructParents'), PDFNumber.of(next))
  return marks
}

/** Puts an element behind the others of another one. */
function addKid(parent: PDFDict, kid: PDFRef): void {
  const kids = parent.lookup(key('K'))
  const own = parent.get(key('K'))
  if (kids instanceof PDFArray) kids.push(kid)
  else parent.set(key('K'), parent.context.obj(own === undefined ? [kid] : [own, kid]))
}

/**
 * Adds a paragraph of a page to the end of the structure.
 * @returns the number that its content is marked with (14.7.5.2); null where the file has no structure that can be gone on with
 */
export function tagAdded(finished: Pick<FinishedPdf, 'pdf'>, page: PDFPage): number | null {
  const structure = structureOf(finished)
  if (!structure) return null
  const leaves = leavesOf(structure.parentTree)
  const number = asNumber(page.node.lookup(key('StructParents')))
  const known = number === null ? null : valueOf(leaves, number)
  // A page that says where its marks are, and they are not there, is not to be made worse.
  if (number !== null && !(known instanceof PDFArray)) return null
  const marks = known instanceof PDFArray ? known : newMarks(structure, leaves, page)
  const { context } = structure.root
  const mark = marks.size()
  const { element, reference } = structure.whole
  const paragraph = context.register(context.obj({ Type: 'StructElem', S: 'P', P: reference, Pg: page.ref, K: mark }))
  marks.push(paragraph)
  addKid(element, paragraph)
  return mark
}
