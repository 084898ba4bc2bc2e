import { aliasGroups } from './family-alias'
import { covers, needsNoGlyph, type FaceMeasures, type FaceRecord } from './face'
import { nearest, type Library } from './library'
import { bareName, nameKey, slipsBetween } from './near-names'

/** What is known of an absent family: its name, and what the file says beside it. */
export interface AbsentName {
  readonly family: string
  readonly generic: string
  readonly pitch: string
  /** As the declaration has it (svg:panose-1, ODF 1.4 part 3, 19.528); [] where it has none. */
  readonly panose: readonly number[]
  /** Measures that the declaration states (svg:x-height, svg:cap-height, svg:stemv …), in thousandths of an em. */
  readonly stated: Partial<Pick<FaceMeasures, 'xHeight' | 'capHeight' | 'stem'>>
  /** The weight and posture that most of its text asks for. */
  readonly weight: number
  readonly italic: boolean
}

export type SuggestionKind = 'same name' | 'same design' | 'metric-compatible' | 'near name' | 'measured' | 'hint'

/** A library family that could take the place of an absent one, with the reason. */
export interface Suggestion {
  readonly family: string
  readonly kind: SuggestionKind
  /** For people: “has the same widths as Arial”. */
  readonly reason: string
  /** The face that would show most of the text. */
  readonly hash: string
  /** Characters of the text that it lacks, each once. */
  readonly lacks: number
}

const listed = (words: readonly string[]) => words.map(word => `“${word}”`).join(' and ')

interface Named {
  readonly family: string
  readonly via: string
  readonly kind: 'same design' | 'metric-compatible' | null
}

function knownNames(library: Library): Named[] {
  return [
    ...library.familyNames.map((family): Named => ({ family, via: family, kind: null })),
    ...aliasGroups.flatMap(group =>
      library.family(group.family).length === 0
        ? []
        : group.names.map((via): Named => ({ family: group.family, via, kind: group.kind })),
    ),
  ]
}

/** Names that are this one, or nearly: the nearest first. */
function byName(
  library: Library,
  absent: string,
): { named: Named; slips: number; dropped: readonly string[]; exact: boolean }[] {
  const own = nameKey(absent)
  const bare = bareName(absent)
  const found: { named: Named; slips: number; dropped: readonly string[]; exact: boolean; order: number }[] = []
  for (const named of knownNames(library)) {
    const other = nameKey(named.via)
    if (own === other) {
      found.push({ named, slips: 0, dropped: [], exact: true, order: 0 })
      continue
    }
    const otherBare = bareName(named.via)
    // Short names have too few letters to be told apart by two slips.
    const limit = Math.min(bare.key.length, otherBare.key.length) < 5 ? 1 : 2
    const direct = slipsBetween(own, other, limit)
    const stripped = Math.min(slipsBetween(bare.key, otherBare.key, limit), slipsBetween(bare.key, other, limit))
    const slips = Math.min(direct, stripped)
    if (slips > limit) continue
    // What was dropped must be dropped on both sides, or nothing must be: “Crimson Pro” is not “Crimson”.
    found.push({
      named,
      slips,
      dropped: direct <= stripped ? [] : bare.dropped,
      exact: false,
      order: slips * 4 + (direct <= stripped ? 0 : 1) + Math.abs(other.length - bare.key.length) / 40,
    })
  }
  return found.sort((a, b) => a.order - b.order || a.named.via.localeCompare(b.named.via))
}

function reasonByName(
  { named, slips, dropped, exact }: ReturnType<typeof byName>[number],
  absent: string,
): { kind: SuggestionKind; reason: string } {
  if (exact && named.kind === 'same design') return { kind: 'same design', reason: `the same design as ${named.via}` }
  if (exact && named.kind === 'metric-compatible')
    return { kind: 'metric-compatible', reason: `has the same widths as ${named.via}` }
  if (exact)
    return {
      kind: 'same name',
      reason: named.via === absent ? 'it is in the library' : `the same name, written “${absent}” here`,
    }
  const how =
    slips === 0
      ? dropped.length > 0
        ? `the name without ${listed(dropped)}`
        : 'nearly the same name'
      : `the name is ${slips === 1 ? 'one letter' : 'two letters'} away${dropped.length > 0 ? `, without ${listed(dropped)}` : ''}`
  return {
    kind: 'near name',
    reason:
      named.kind === null
        ? `${how}: ${named.via}`
        : `${how}: ${named.via}, whose ${named.kind === 'metric-compatible' ? 'widths it has' : 'design it is'}`,
  }
}

/** What a distance is made of, with how far apart counts as one step: a step is what a reader begins to see. */
const features: readonly {
  readonly name: string
  readonly step: number
  readonly of: (measures: FaceMeasures) => number | null
}[] = [
  { name: 'x-height', step: 25, of: each => (each.xHeight > 0 ? each.xHeight : null) },
  { name: 'width', step: 25, of: each => each.averageWidth },
  { name: 'cap height', step: 40, of: each => (each.capHeight > 0 ? each.capHeight : null) },
  { name: 'weight', step: 18, of: each => (each.stem > 0 ? each.stem : null) },
  { name: 'contrast', step: 0.25, of: each => (each.stem > 0 && each.hairline > 0 ? each.hairline / each.stem : null) },
  { name: 'serifs', step: 0.9, of: each => (each.stem > 0 ? Math.min(each.foot, 2.5) : null) },
]

/**
 * How far two faces are apart, in steps that a reader sees (root of the mean square); null where nothing can be
 * compared.
 */
export function measuredDistance(
  one: Partial<FaceMeasures>,
  face: FaceRecord,
): { readonly distance: number; readonly nearest: readonly string[] } | null {
  const parts: { name: string; steps: number }[] = []
  for (const { name, step, of } of features) {
    const full = {
      xHeight: 0,
      capHeight: 0,
      averageWidth: Number.NaN,
      stem: 0,
      hairline: 0,
      foot: 1,
      ...one,
    } as FaceMeasures
    const [mine, other] = [of(full), of(face.measures)]
    if (mine === null || other === null || Number.isNaN(mine)) continue
    parts.push({ name, steps: Math.abs(mine - other) / step })
  }
  if (parts.length === 0) return null
  return {
    distance: Math.sqrt(parts.reduce((sum, part) => sum + part.steps ** 2, 0) / parts.length),
    nearest: [...parts]
      .sort((a, b) => a.steps - b.steps)
      .filter(part => part.steps <= 1)
      .slice(0, 3)
      .map(part => part.name),
  }
}

/**
 * Panose (OpenType 1.9, OS/2; Hewlett-Packard 1991): families 2 Latin text and 3 Latin script; of text, serif
 * styles 11 to 15 are without serifs; proportion 9 is of one width.
 */
type Kind = 'serif' | 'sans' | 'mono' | 'script'
function kindOf(absent: AbsentName): { kind: Kind; because: string } | null {
  const { panose, generic, pitch, family } = absent
  if (pitch === 'fixed' || generic === 'modern')
    return { kind: 'mono', because: 'the file says that its letters are of one width' }
  if (panose[0] === 2 && panose[3] === 9) return { kind: 'mono', because: 'its Panose figures say one width' }
  if (panose[0] === 3 || generic === 'script')
    return { kind: 'script', because: panose[0] === 3 ? 'its Panose figures say script' : 'the file calls it script' }
  if (panose[0] === 2 && (panose[1] ?? 0) >= 2)
    return panose[1]! >= 11
      ? { kind: 'sans', because: 'its Panose figures say without serifs' }
      : { kind: 'serif', because: 'its Panose figures say with serifs' }
  // A name that says sans is surer than a hint that programs fill in by themselves.
  if (/\bsans\b|grotes[kq]/i.test(family)) return { kind: 'sans', because: 'its name says sans' }
  if (generic === 'roman') return { kind: 'serif', because: 'the file calls it roman' }
  if (generic === 'swiss') return { kind: 'sans', because: 'the file calls it swiss' }
  if (/mono|typewriter|console/i.test(family)) return { kind: 'mono', because: 'its name says one width' }
  if (/script|hand|brush|callig/i.test(family)) return { kind: 'script', because: 'its name says script' }
  if (/sans|gothic/i.test(family)) return { kind: 'sans', because: 'its name says sans' }
  if (/serif|roman|antiqua/i.test(family)) return { kind: 'serif', because: 'its name says serif' }
  return null
}
const handFamilies = ['Caveat', 'Dancing Script', 'Kalam']
function isOfKind(face: FaceRecord, kind: Kind): boolean {
  const { measures, monospaced, coverage } = face
  const hand = handFamilies.includes(face.family)
  if (kind === 'script') return hand
  if (hand || (coverage.Latin ?? 0) === 0) return false
  if (kind === 'mono') return monospaced
  // Display faces stand in badly for text: a stem above an eighth of an em is one.
  return !monospaced && measures.stem < 125 && (kind === 'serif') === measures.foot > 1.4
}

/** Families that readers take for plain text of a kind, from which a hint without measures starts. */
const plainest: Readonly<Record<Kind, string>> = {
  serif: 'Liberation Serif',
  sans: 'Liberation Sans',
  mono: 'Liberation Mono',
  script: 'Kalam',
}

/**
 * Library families that could take the place of an absent one, best first: the same design under another name, one of
 * the same widths, a near name, then what the file's hints and measures speak for. Names are never called the same
 * design on likeness alone.
 * @param known measures of the absent face itself, where a file of it came with the document
 * @param codePoints characters that its text has
 */
export function suggestFaces(
  library: Library,
  absent: AbsentName,
  codePoints: Iterable<number> = [],
  known: FaceMeasures | null = null,
  limit = 8,
): Suggestion[] {
  const wanted = [...new Set(codePoints)].filter(code => !needsNoGlyph(code))
  const found = new Map<string, Suggestion>()
  const put = (family: string, kind: SuggestionKind, reason: string) => {
    if (found.has(family)) return
    const face = nearest(library.family(family), absent.weight, absent.italic)
    found.set(family, {
      family,
      kind,
      reason,
      hash: face.hash,
      lacks: wanted.filter(code => !covers(face, code)).length,
    })
  }
  const named = byName(library, absent.family)
  for (const match of named) {
    const { kind, reason } = reasonByName(match, absent.family)
    put(match.named.family, kind, reason)
  }
  const lacksMany = (face: FaceRecord) =>
    wanted.length > 0 && wanted.filter(code => !covers(face, code)).length * 2 > wanted.length
  const hint = kindOf(absent)
  const compatible = named.find(each => each.slips === 0 && each.named.kind !== null)
  const alias = compatible && nearest(library.family(compatible.named.family), absent.weight, absent.italic)
  const measures: Partial<FaceMeasures> | null =
    known ?? alias?.measures ?? (Object.keys(absent.stated).length > 0 ? absent.stated : null)
  const measuredBy = known ? 'the font file that came with it' : alias ? alias.family : 'what the file states'
  const faces = library.familyNames
    .map(family => nearest(library.family(family), absent.weight, absent.italic))
    .filter(face => !lacksMany(face))
  if (measures) {
    const distances = faces
      .flatMap(face => {
        const own = hint === null || isOfKind(face, hint.kind) ? measuredDistance(measures, face) : null
        return own ? [{ face, ...own }] : []
      })
      .sort((a, b) => a.distance - b.distance)
    for (const { face, nearest: alike } of distances.slice(0, limit))
      put(
        face.family,
        'measured',
        `measured against ${measuredBy}: ${alike.length > 0 ? `alike in ${alike.join(', ')}` : 'the nearest of its kind'}`,
      )
  } else if (hint) {
    const plain = library.family(plainest[hint.kind])
    const start = plain.length > 0 ? nearest(plain, absent.weight, absent.italic).measures : null
    const ranked = faces
      .filter(face => isOfKind(face, hint.kind))
      .map(face => ({ face, distance: start ? (measuredDistance(start, face)?.distance ?? 9) : 0 }))
      .sort((a, b) => a.distance - b.distance)
    for (const { face } of ranked.slice(0, limit)) put(face.family, 'hint', hint.because)
  }
  return [...found.values()].slice(0, limit)
}
