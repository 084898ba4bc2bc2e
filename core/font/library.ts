import { isSymbolFamily } from '../document/font-references'
import { aliasGroups, spellingKey } from './family-alias'
import { covers, needsNoGlyph, parseStyleName, type FaceRecord } from './face'
import { knownLineHeights, ownLineHeights, type LineHeights } from './line-heights'
import { coveredScripts, type CoveredScript } from './measure/covered-scripts'

/** What is asked for: a family as a document names it, and the weight and posture its styles ask of it. */
export interface FaceRequest {
  readonly family: string
  /** A single face by name, or ''. */
  readonly styleName: string
  readonly weight: number
  readonly italic: boolean
  /** Hints that a declaration gives: style:font-family-generic, style:font-pitch, style:font-charset. */
  readonly generic: string
  readonly pitch: string
  readonly charset: string
  /** What the text is written in, as far as its slot tells. */
  readonly slot: 'western' | 'asian' | 'complex'
}

/** What a family is asked for by where nothing else is known of it. */
export const requestOf = (family: string, weight: number, italic: boolean): FaceRequest => ({
  family,
  styleName: '',
  weight,
  italic,
  generic: '',
  pitch: '',
  charset: '',
  slot: 'western',
})

/**
 * In the library; there under another name; absent with a stand-in; or no font is named, so that every reader
 * chooses its own.
 */
export type FontStatus = 'present' | 'alias' | 'absent' | 'unnamed'

/** How a name was resolved, with the reason in words. */
export interface Resolution {
  readonly status: FontStatus
  /** The face that shows the text: the one asked for, its alias, or a stand-in. */
  readonly face: FaceRecord
  /** The face has the very weight and posture asked for. Never is a weight or slant invented. */
  readonly exact: boolean
  readonly reason: string
  /** How high its lines are: of the family that is named, where that is known, else of the face that shows it. */
  readonly lines: LineHeights
}

/** In which text a stand-in stands in: of a slot, of a script, or in all. */
export const standInScripts = ['any', 'western', 'asian', 'complex', ...coveredScripts] as const

/**
 * A stand-in that somebody chose: for an absent family, or with '' for all of them; for a slot, or for a script of
 * coveredScripts.
 */
export interface StandIn {
  readonly family: string
  readonly script: (typeof standInScripts)[number]
  readonly to: string
}

const serifStandIn = ['Liberation Serif', 'DejaVu Serif']
const sansStandIn = ['Liberation Sans', 'DejaVu Sans']
const monoStandIn = ['Liberation Mono', 'DejaVu Sans Mono']
/** Where a face lacks a sign these are asked in turn, after the stand-in of the generic kind. */
const glyphOrder = [
  'Liberation Sans',
  'DejaVu Sans',
  'Zen Kaku Gothic New',
  'BIZ UDPGothic',
  'Noto Naskh Arabic',
  'Frank Ruhl Libre',
  'Noto Sans Devanagari',
  'DejaVu Serif',
  'DejaVu Sans Mono',
]

/** All faces there are, by family. Immutable: adding a face makes another library. */
export class Library {
  private readonly families = new Map<string, FaceRecord[]>()
  private readonly aliases = new Map<string, { readonly family: string; readonly kind: string }>()
  private readonly resolved = new Map<string, Resolution>()
  private readonly glyphFaces = new Map<string, FaceRecord | null>()

  /**
   * @param standIns chosen by people, the strongest first: those of the document, then of the house, then of the
   * desk
   */
  constructor(
    readonly faces: readonly FaceRecord[],
    readonly standIns: readonly StandIn[] = [],
  ) {
    for (const face of faces) {
      const key = spellingKey(face.family)
      const family = this.families.get(key)
      if (family) family.push(face)
      else this.families.set(key, [face])
    }
    for (const group of aliasGroups) for (const name of group.names) this.aliases.set(spellingKey(name), group)
  }

  /** The same library with other stand-ins. */
  withStandIns(standIns: readonly StandIn[]): Library {
    return new Library(this.faces, standIns)
  }

  /** Family names, sorted. */
  get familyNames(): string[] {
    return [...this.families.values()].map(faces => faces[0]!.family).sort((a, b) => a.localeCompare(b))
  }

  /** Faces of a family, light to heavy, upright before italic. */
  family(name: string): FaceRecord[] {
    return [...(this.families.get(spellingKey(name)) ?? [])].sort(
      (a, b) => a.weight - b.weight || b.slant.localeCompare(a.slant) || a.width - b.width,
    )
  }

  byHash(hash: string): FaceRecord | undefined {
    return this.faces.find(face => face.hash === hash)
  }

  /** A family's face by its style name. */
  named(family: string, style: string): FaceRecord | undefined {
    const faces = this.families.get(spellingKey(family)) ?? []
    const said = parseStyleName(style)
    return (
      faces.find(face => spellingKey(face.style) === spellingKey(style)) ??
      (said && said.rest === ''
        ? faces.find(face => face.weight === said.weight && (face.slant === 'italic') === said.italic)
        : undefined)
    )
  }

  /** Resolves a name. Never fails as long as the library has a face: what is absent gets a stand-in, and the reason. */
  resolve(request: FaceRequest): Resolution {
    const key =
      `${request.family}\n${request.styleName}\n${request.weight}\n` +
      `${request.italic}\n${request.generic}\n${request.pitch}\n${request.charset}\n` +
      `${request.slot}`
    let resolution = this.resolved.get(key)
    if (!resolution) {
      const found = this.find(request)
      const named = found.status === 'present' ? null : knownLineHeights(request.family)
      resolution = { ...found, lines: named ?? ownLineHeights(found.face.measures) }
      this.resolved.set(key, resolution)
    }
    return resolution
  }

  private find(request: FaceRequest): Omit<Resolution, 'lines'> {
    const own = this.families.get(spellingKey(request.family))
    if (own) {
      const written = own[0]!.family === request.family ? '' : `, written “${request.family}” here`
      return { status: 'present', ...chosen(own, request), reason: `${own[0]!.family} is in the library${written}` }
    }
    // The face may be named as a family of its own: “Spectral SemiBold”.
    const said = parseStyleName(request.family)
    const parent = said ? this.families.get(spellingKey(said.rest)) : undefined
    if (said && parent) {
      const named = {
        ...request,
        styleName: '',
        weight: said.weight === 400 ? request.weight : said.weight,
        italic: said.italic || request.italic,
      }
      return {
        status: 'present',
        ...chosen(parent, named),
        reason: `a face of ${parent[0]!.family}, which is in the library`,
      }
    }
    const picked = request.family === '' ? null : this.pickedFor(request.family, request.slot, 'own')
    if (picked)
      return {
        status: 'absent',
        ...chosen(picked.faces, request),
        reason: `${request.family} is not in the library; ${picked.faces[0]!.family} stands in, as you chose`,
      }
    const alias = this.aliases.get(spellingKey(request.family))
    const faces = alias && this.families.get(spellingKey(alias.family))
    if (alias && faces) {
      const reason =
        alias.kind === 'metric-compatible'
          ? `${alias.family} has the same widths as ${request.family}; ${
              knownLineHeights(request.family) ? 'lines are as high as there' : 'its lines may be higher or lower'
            }`
          : `${alias.family} is the same design as ${request.family}`
      return { status: 'alias', ...chosen(faces, request), reason }
    }
    return this.standIn(request)
  }

  /**
   * The stand-in chosen for a family in a slot or script, one of its own or one for all families: one for that very
   * family first, one for that slot or script before one for any.
   */
  private pickedFor(
    family: string,
    script: StandIn['script'],
    which: 'own' | 'general' | 'any' = 'any',
  ): { readonly faces: readonly FaceRecord[] } | null {
    const rank = (each: StandIn) => (each.family !== '' ? 0 : 2) + (each.script === 'any' ? 1 : 0)
    const rules = this.standIns.filter(
      each =>
        (which === 'any' || (which === 'own') === (each.family !== '')) &&
        (each.family === '' || spellingKey(each.family) === spellingKey(family)) &&
        (each.script === script || (each.script === 'any' && !isScript(script))),
    )
    for (const rule of [...rules].sort((a, b) => rank(a) - rank(b))) {
      const faces = this.families.get(spellingKey(rule.to))
      if (faces) return { faces }
    }
    return null
  }

  /**
   * Faces chosen for single scripts of an absent family, in the nearest weight and posture: their letters are shown
   * by them.
   */
  scriptStandIns(request: FaceRequest): readonly { readonly script: CoveredScript; readonly face: FaceRecord }[] {
    if (this.standIns.every(each => !isScript(each.script))) return []
    return coveredScripts.flatMap(script => {
      const picked = this.pickedFor(request.family, script)
      return picked ? [{ script, face: chosen(picked.faces, request).face }] : []
    })
  }

  private standIn(request: FaceRequest): Omit<Resolution, 'lines'> {
    const general = request.family === '' ? null : this.pickedFor(request.family, request.slot, 'general')
    if (general)
      return {
        status: 'absent',
        ...chosen(general.faces, request),
        reason: `${request.family} is not in the library; ${general.faces[0]!.family} stands in, as you chose for all`,
      }
    const { names, because } = standInFamilies(request)
    const unnamed = request.family === ''
    for (const name of [...names, ...sansStandIn]) {
      const faces = this.families.get(spellingKey(name))
      if (faces)
        return unnamed
          ? {
              status: 'unnamed',
              ...chosen(faces, request),
              reason: `the document names no font here, so every reader chooses its own; shown in ${faces[0]!.family}`,
            }
          : {
              status: 'absent',
              ...chosen(faces, request),
              reason: `${request.family} is not in the library; ${faces[0]!.family} stands in, ${because}`,
            }
    }
    const any = this.faces[0]
    if (!any) throw new Error('the library holds no face')
    return {
      status: 'absent',
      ...chosen([any], request),
      reason: `${request.family}: not in the library, nor any usual stand-in`,
    }
  }

  /** The face that shows a sign its own face lacks, in the nearest weight and posture; null where none has it. */
  forGlyph(codePoint: number, like: FaceRecord): FaceRecord | null {
    const key = `${codePoint}|${like.weight}|${like.slant}|${like.monospaced}`
    const known = this.glyphFaces.get(key)
    if (known !== undefined) return known
    let found: FaceRecord | null = null
    for (const name of like.monospaced ? [...monoStandIn, ...glyphOrder] : glyphOrder) {
      const faces = this.families.get(spellingKey(name))
      const face = faces && nearest(faces, like.weight, like.slant === 'italic')
      if (face && covers(face, codePoint)) {
        found = face
        break
      }
    }
    found ??= this.faces.find(face => covers(face, codePoint)) ?? null
    this.glyphFaces.set(key, found)
    return found
  }
}

const isScript = (script: StandIn['script']): script is CoveredScript =>
  (coveredScripts as readonly string[]).includes(script)

function standInFamilies(request: FaceRequest): { names: readonly string[]; because: string } {
  if (request.slot === 'asian')
    return { names: ['Zen Kaku Gothic New', 'BIZ UDPGothic'], because: 'as it has East Asian letters' }
  const name = request.family.toLowerCase()
  if (isSymbolFamily(request.family, request.charset))
    return { names: ['DejaVu Sans'], because: 'as it has many signs' }
  if (request.pitch === 'fixed' || request.generic === 'modern' || /mono|courier|typewriter|console|code/.test(name))
    return { names: monoStandIn, because: 'as its letters are of one width' }
  if (/sans|grotes[kq]|gothic/.test(name)) return { names: sansStandIn, because: 'as its name says sans' }
  if (request.generic === 'roman' || /serif|roman/.test(name))
    return {
      names: serifStandIn,
      because: request.generic === 'roman' ? 'as the file calls it roman' : 'as its name says serif',
    }
  if (request.generic === 'script')
    return { names: ['Caveat', 'Dancing Script'], because: 'as the file calls it script' }
  return {
    names: sansStandIn,
    because: request.generic === 'swiss' ? 'as the file calls it swiss' : 'as the file gives no hint of its kind',
  }
}

function chosen(faces: readonly FaceRecord[], request: FaceRequest): { face: FaceRecord; exact: boolean } {
  if (request.styleName !== '') {
    const named = faces.find(face => spellingKey(face.style) === spellingKey(request.styleName))
    if (named) {
      // A style name may go with bold on top: then the heavier face is meant where there is one.
      if (request.weight <= 400 && !request.italic) return { face: named, exact: true }
      const both = nearest(faces, Math.max(named.weight, request.weight), request.italic || named.slant === 'italic')
      return { face: both, exact: true }
    }
  }
  const face = nearest(faces, request.weight, request.italic)
  return { face, exact: face.weight === request.weight && (face.slant === 'italic') === request.italic }
}

/** The nearest weight in the order of CSS Fonts 4 section 5.2, posture first, normal width before others. */
export function nearest(faces: readonly FaceRecord[], weight: number, italic: boolean): FaceRecord {
  const slanted = faces.filter(face => (face.slant === 'italic') === italic)
  const inPosture = slanted.length > 0 ? slanted : faces
  const normal = inPosture.filter(face => face.width === 100)
  const candidates = normal.length > 0 ? normal : inPosture
  const distance = (face: FaceRecord): number => {
    const away = face.weight - weight
    if (weight >= 400 && weight <= 500) {
      if (away >= 0 && face.weight <= 500) return away
      return away < 0 ? 1000 - away : 2000 + away
    }
    const wrongWay = weight < 400 ? away > 0 : away < 0
    return wrongWay ? 1000 + Math.abs(away) : Math.abs(away)
  }
  return candidates.reduce((best, face) => (distance(face) < distance(best) ? face : best))
}

/** Code points of a text that a face lacks, each once, with how often it occurs. */
export function missingGlyphs(
  face: FaceRecord,
  text: string,
  into: Map<number, number> = new Map(),
): Map<number, number> {
  for (const character of text) {
    const code = character.codePointAt(0)!
    if (!needsNoGlyph(code) && !covers(face, code)) into.set(code, (into.get(code) ?? 0) + 1)
  }
  return into
}
