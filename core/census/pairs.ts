import type { Paragraph, Story } from '../document/story-model'
import { standingParagraphs } from '../document/stories'
import type { FaceRecord } from '../font/face'
import type { Cascade } from '../style/cascade'
import type { Reading } from '../style/reading'
import { paragraphRuns } from '../style/runs'
import type { Look, Typesetter } from '../typeset/look'

/** Two letters that stand together in one face and size. Offsets are of the paragraph's text. */
export interface PairAt {
  readonly left: string
  readonly right: string
  /** Where the left one begins, and the right one. */
  readonly from: number
  readonly border: number
  /** How both look, corrections of single places not counted. */
  readonly look: Look
}

const mark = /^\p{M}/u
const letter = /^[\p{L}\p{N}\p{P}]/u

/** The text as the look shows it: capitals that are set by a style are capitals to the eye. */
const shown = (character: string, look: Look): string => {
  const cased =
    look.transform === 'uppercase'
      ? character.toUpperCase()
      : look.transform === 'lowercase'
        ? character.toLowerCase()
        : character
  return cased.length === character.length ? cased : character
}

/** The pairs of letters in a paragraph that stand in one look. Text that fields show, and hidden text, has none. */
export function* pairsIn(
  paragraph: Paragraph,
  role: Story['role'],
  cascade: Cascade,
  typesetter: Typesetter,
): Generator<PairAt> {
  const { text, runs } = paragraphRuns(paragraph, cascade, role)
  let before: { readonly character: string; readonly from: number; readonly look: Look } | null = null
  for (const run of runs) {
    if (run.inline.kind !== 'text' || run.inline.field !== null) {
      before = null
      continue
    }
    const look = typesetter.look(run.style.pair?.apart ?? run.style, run.slot)
    if (look.hidden) {
      before = null
      continue
    }
    for (let at = run.start; at < run.end;) {
      const character = String.fromCodePoint(text.codePointAt(at)!)
      const next = at + character.length
      // What a mark sits on is one sign with it: such pairs are left to the face.
      const isMarked = next < text.length && mark.test(text.slice(next, next + 2))
      if (before && before.look === look && !isMarked && letter.test(character) && letter.test(before.character)) {
        yield {
          left: shown(before.character, look),
          right: shown(character, look),
          from: before.from,
          border: at,
          look,
        }
      }
      before = isMarked || mark.test(character) ? null : { character, from: at, look }
      at = next
    }
  }
}

/** A pair in a document: in which face, how often, at which sizes, and words in which it stands. */
export interface DocumentPair {
  readonly left: string
  readonly right: string
  readonly count: number
  /** Its first places, with the word around it and the size there in points. */
  readonly places: readonly {
    readonly part: string
    readonly node: number
    readonly from: number
    readonly word: string
    /** Where in the word the left one stands. */
    readonly at: number
    readonly size: number
  }[]
}

/** The pairs of a document in one face of the library. */
export interface FacePairs {
  readonly face: FaceRecord
  readonly pairs: readonly DocumentPair[]
}

/** As many places of a pair are told. */
const placesTold = 12
/** Longest piece of a word that is shown around a pair. */
const wordLength = 24

function wordAround(text: string, from: number, border: number): { word: string; at: number } {
  let [start, end] = [from, border]
  while (start > 0 && /\S/.test(text[start - 1]!) && from - start < wordLength / 2) start--
  while (end < text.length && /\S/.test(text[end]!) && end - border < wordLength / 2) end++
  return { word: text.slice(start, end), at: from - start }
}

/** All pairs of letters that a document has, by the faces they stand in; those in most text first. */
export function documentPairs(reading: Pick<Reading, 'cascade' | 'stories'>, typesetter: Typesetter): FacePairs[] {
  const { cascade } = reading
  const faces = new Map<
    string,
    { face: FaceRecord; pairs: Map<string, { -readonly [K in keyof DocumentPair]: DocumentPair[K] }> }
  >()
  for (const { paragraph, story } of standingParagraphs(reading)) {
    let text: string | null = null
    for (const { left, right, from, border, look } of pairsIn(paragraph, story.role, cascade, typesetter)) {
      if (look.status === 'absent') continue
      let own = faces.get(look.face.hash)
      if (!own) faces.set(look.face.hash, (own = { face: look.face, pairs: new Map() }))
      const key = left + right
      let pair = own.pairs.get(key)
      if (!pair) own.pairs.set(key, (pair = { left, right, count: 0, places: [] }))
      pair.count++
      if (pair.places.length >= placesTold) continue
      text ??= paragraphRuns(paragraph, cascade, story.role).text
      pair.places = [
        ...pair.places,
        { part: paragraph.part, node: paragraph.node, from, size: look.size, ...wordAround(text, from, border) },
      ]
    }
  }
  const total = (pairs: Iterable<DocumentPair>) => [...pairs].reduce((sum, pair) => sum + pair.count, 0)
  return [...faces.values()]
    .map(({ face, pairs }) => ({ face, pairs: [...pairs.values()] }))
    .sort((one, other) => total(other.pairs) - total(one.pairs))
}
