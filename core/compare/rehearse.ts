import type { FaceCensus } from '../census/census'
import { sameFamily } from '../document/font-family'
import { Library } from '../font/library'
import { DocumentSession } from '../session'
import { paragraphRuns } from '../style/runs'
import { Typesetter } from '../typeset/look'
import type { ParagraphLayout } from '../typeset/paragraph-model'
import { paragraphExtents } from '../typeset/compose'

/** A family that another desk would not have, and what comes of it there. */
export interface MissingThere {
  readonly family: string
  readonly characters: number
  /** What would show it. */
  readonly shownBy: string
  /** Its widths are those of what shows it: lines end as here. */
  readonly sameWidths: boolean
  /** The document carries its files. */
  readonly travels: boolean
  /** Paragraphs with text in it that would have another number of lines. */
  readonly paragraphs: number
}

/** A document as a desk without our faces would see it. */
export interface Rehearsal {
  readonly pagesHere: number
  readonly pagesThere: number
  readonly linesHere: number
  readonly linesThere: number
  /** Frames that run over there and not here. */
  readonly overset: readonly { readonly name: string; readonly lines: number }[]
  readonly families: readonly MissingThere[]
}

/** Faces that systems bring by themselves: those of Debian’s, which have the widths of the commonest of others. */
const ofSystems = ({ faces }: Library): Library => new Library(faces.filter(each => each.source === 'system'))

const linesOf = (session: DocumentSession) =>
  new Map([...paragraphExtents(session.composition)].map(([node, { lines, layout }]) => [node, { lines, layout }]))

/** The families that the text of a paragraph asks for. */
const familiesIn = ({ cascadeOf }: DocumentSession['composition'], { paragraph, role }: ParagraphLayout): string[] =>
  paragraphRuns(paragraph, cascadeOf(paragraph.part), role).runs.map(
    run => run.style.effective.slots[run.slot].font.family,
  )

/** Families whose files a document carries. */
const carried = ({ reading }: DocumentSession): string[] =>
  [...reading.cascade.scopes.values()]
    .flatMap(scope => [...scope.faces.values()])
    .flatMap(face => (face.files.length > 0 ? face.families : []))

/**
 * Sets a document with nothing but the faces that systems bring, and says what that changes: what would have to travel
 * with it. Its pages are those of the session that comes with it.
 */
export function rehearse(here: DocumentSession): { readonly rehearsal: Rehearsal; readonly there: DocumentSession } {
  const library = ofSystems(here.typesetter.library)
  const there = new DocumentSession(here.document, new Typesetter(library, here.typesetter.shaper))
  const [ours, theirs] = [linesOf(here), linesOf(there)]
  const changed = [...ours]
    .filter(([node, { lines }]) => (theirs.get(node)?.lines ?? 0) !== lines)
    .map(([, { layout }]) => familiesIn(here.composition, layout))
  const files = carried(here)
  const missing = there.detail.census.faces.filter(
    face => face.family !== '' && !face.symbols && face.status !== 'present' && isHere(here, face),
  )
  const families = [...new Set(missing.map(each => each.family))].map((family): MissingThere => {
    const own = missing.filter(each => each.family === family)
    return {
      family,
      characters: own.reduce((sum, each) => sum + each.characters, 0),
      shownBy: own[0]!.standIn ?? '',
      sameWidths: own.every(each => each.status === 'alias'),
      travels: files.some(each => sameFamily(each, family)),
      paragraphs: changed.filter(families => families.some(each => sameFamily(each, family))).length,
    }
  })
  const over = here.composition.overset
  return {
    there,
    rehearsal: {
      pagesHere: here.composition.pages.length,
      pagesThere: there.composition.pages.length,
      linesHere: sum(ours),
      linesThere: sum(theirs),
      overset: there.composition.overset
        .filter(each => !over.some(other => other.part === each.part && other.node === each.node))
        .map(({ name, lines }) => ({ name, lines })),
      families: families.sort((a, b) => b.characters - a.characters),
    },
  }
}

/** Whether a face is one that this desk has: what is absent here, too, is no loss of the way. */
const isHere = ({ detail }: DocumentSession, { key }: FaceCensus): boolean =>
  detail.census.faces.some(each => each.key === key && each.status === 'present')

const sum = (lines: ReadonlyMap<number, { readonly lines: number }>): number =>
  [...lines.values()].reduce((all, each) => all + each.lines, 0)
