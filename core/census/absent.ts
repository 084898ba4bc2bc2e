import { fontReferences, type FontReference } from '../document/font-references'
import { familyKey, sameFamily } from '../document/font-family'
import { readScopes, type FaceDeclaration } from '../document/styles'
import { paragraphsOf } from '../document/stories'
import type { Slot } from '../document/font-attributes'
import type { Library } from '../font/library'
import type { AbsentName } from '../font/suggest'
import { percent } from '../style/properties'
import { objectSign, paragraphRuns } from '../style/runs'
import type { Composition } from '../typeset/compose'
import type { Reading } from '../style/reading'
import type { PageView } from '../typeset/drawing-pages'
import type { Occurrence } from './census'
import { pagesOf } from './text-pages'
import { resolutionOf } from './resolution'
import { faceKey, voiceKey, voiceOf } from './voices'

/** Where an absent face is called for, as a designer thinks of it. */
export const absentLayers = [
  'style',
  'stray',
  'default',
  'chart',
  'note',
  'master',
  'header',
  'off-page',
  'bullet',
  'formula',
  'declaration',
  'other',
] as const
export type AbsentLayer = (typeof absentLayers)[number]

/**
 * A family that the document names and the library lacks; of an `alias` the library has one that is made to take
 * its place.
 */
export interface AbsentFace {
  readonly status: 'absent' | 'alias'
  /** As the file has it. */
  readonly family: string
  readonly symbols: boolean
  readonly characters: number
  readonly onlySpaces: boolean
  /** Paragraphs without text whose mark is set in it. */
  readonly emptyMarks: number
  readonly layers: readonly {
    readonly layer: AbsentLayer
    readonly references: number
    readonly characters: number
    readonly owners: readonly string[]
  }[]
  readonly pages: readonly number[]
  /** The family that shows it here, with the reason; '' where no text is set in it. */
  readonly standIn: string
  readonly reason: string
  /** What is known of it, for suggestions. */
  readonly name: AbsentName
  /** Font files that the document carries for it, by their paths in the package. */
  readonly files: readonly string[]
  /** Its characters, each once. */
  readonly codePoints: readonly number[]
}

/** One place of an absent face. An empty one is a paragraph's mark: an empty line that nobody sees. */
export interface AbsentPlace extends Occurrence {
  readonly family: string
  readonly layer: AbsentLayer
  readonly text: string
  readonly empty: boolean
  readonly view: PageView
}

export interface AbsentList {
  readonly faces: readonly AbsentFace[]
  readonly places: readonly AbsentPlace[]
}

const referenceLayer = (reference: FontReference): AbsentLayer => {
  switch (reference.kind) {
    case 'style':
    case 'stray':
    case 'default':
    case 'chart':
    case 'formula':
    case 'declaration':
      return reference.kind
    case 'master':
      return 'header'
    case 'list':
      return 'bullet'
    case 'setting':
      return 'formula'
    default:
      return 'other'
  }
}

interface Gathered {
  family: string
  characters: number
  spaces: boolean
  emptyMarks: number
  layers: Map<AbsentLayer, { references: number; characters: number; owners: Set<string> }>
  pages: Set<number>
  standIn: string
  reason: string
  codePoints: Map<number, number>
  weights: Map<string, number>
  symbols: boolean
  declarations: FaceDeclaration[]
  references: FontReference[]
}

/** Text that lies wholly outside its page, by paragraph. */
function offPage(composition: Composition): Set<string> {
  const inside = new Set<string>()
  const outside = new Set<string>()
  for (const page of composition.pages) {
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines') continue
      const key = `${fragment.layout.paragraph.part}#${fragment.layout.paragraph.node}`
      const [x, y] = fragment.matrix
        ? [
            fragment.matrix[0] * fragment.x + fragment.matrix[2] * fragment.y + fragment.matrix[4],
            fragment.matrix[1] * fragment.x + fragment.matrix[3] * fragment.y + fragment.matrix[5],
          ]
        : [fragment.x, fragment.y]
      const off =
        x >= page.geometry.width ||
        y >= page.geometry.height ||
        x + fragment.layout.x + fragment.layout.width <= 0 ||
        y < -50
      ;(off ? outside : inside).add(key)
    }
  }
  for (const key of inside) outside.delete(key)
  return outside
}

/** Which view of the pages shows a story. */
const viewOf = (role: string): PageView =>
  role === 'notes' ? 'notes' : role === 'master' || role === 'master-notes' || role === 'handout' ? 'masters' : 'pages'

/** Every absent family with its places, most text first. Text in the marks of empty paragraphs counts no characters. */
export function listAbsent(reading: Reading, library: Library, composition: Composition): AbsentList {
  const { document } = reading
  const gathered = new Map<string, Gathered>()
  const places: AbsentPlace[] = []
  const gather = (family: string): Gathered => {
    const key = familyKey(family)
    let own = gathered.get(key)
    if (!own)
      gathered.set(
        key,
        (own = {
          family,
          characters: 0,
          spaces: true,
          emptyMarks: 0,
          layers: new Map(),
          pages: new Set(),
          standIn: '',
          reason: '',
          codePoints: new Map(),
          weights: new Map(),
          symbols: false,
          declarations: [],
          references: [],
        }),
      )
    return own
  }
  const layerOf = (own: Gathered, layer: AbsentLayer) => {
    let found = own.layers.get(layer)
    if (!found) own.layers.set(layer, (found = { references: 0, characters: 0, owners: new Set() }))
    return found
  }
  const statusOf = (family: string, slot: Slot = 'western') =>
    family === ''
      ? 'unnamed'
      : library.resolve({
          family,
          styleName: '',
          weight: 400,
          italic: false,
          generic: '',
          pitch: '',
          charset: '',
          slot,
        }).status
  const isAbsent = (family: string, slot: Slot = 'western') => ['absent', 'alias'].includes(statusOf(family, slot))

  const where = pagesOf(composition)
  const off = offPage(composition)
  for (const { stories, cascade, prefix } of reading.texts) {
    const object = prefix !== ''
    for (const story of stories) {
      for (const paragraph of paragraphsOf(story.blocks)) {
        const { text, runs } = paragraphRuns(paragraph, cascade, story.role)
        const pages = (start: number, end: number) => (object ? [] : where(paragraph.part, paragraph.node, start, end))
        const put = (style: (typeof runs)[number]['style'], slot: Slot, start: number, end: number): void => {
          const { font, weight, posture } = style.effective.slots[slot]
          const resolution = resolutionOf(library, style, slot)
          if (resolution.status !== 'absent' && resolution.status !== 'alias') return
          const own = gather(font.family)
          const shown = text.slice(start, end)
          const empty = end === start
          const count = [...shown].length
          const setBy = style.effective.layers[font.layer]
          const place: AbsentLayer = object
            ? 'chart'
            : off.has(`${paragraph.part}#${paragraph.node}`)
              ? 'off-page'
              : story.role === 'master' || story.role === 'master-notes' || story.role === 'handout'
                ? 'master'
                : paragraph.place === 'header'
                  ? 'header'
                  : paragraph.place === 'note'
                    ? 'note'
                    : setBy?.local
                      ? 'stray'
                      : setBy?.from === 'default'
                        ? 'default'
                        : 'style'
          const layer = layerOf(own, place)
          layer.characters += count
          layer.owners.add(
            place === 'off-page'
              ? story.title
              : setBy
                ? setBy.style.displayName || `${setBy.style.family} default`
                : 'no style',
          )
          own.characters += count
          if (empty) own.emptyMarks++
          else if (!/^\s*$/.test(shown)) own.spaces = false
          if (own.standIn === '') {
            own.standIn = resolution.face.family
            own.reason = resolution.reason
          }
          const look = `${weight}|${posture !== 'normal'}`
          own.weights.set(look, (own.weights.get(look) ?? 0) + count)
          for (const character of shown) {
            const code = character.codePointAt(0)!
            own.codePoints.set(code, (own.codePoints.get(code) ?? 0) + 1)
          }
          const on = pages(start, Math.max(end, start + 1))
          for (const page of on) own.pages.add(page)
          const voice = voiceOf(style, slot)
          const last = places.at(-1)
          if (
            last &&
            !empty &&
            !last.empty &&
            last.part === paragraph.part &&
            last.node === paragraph.node &&
            last.end === start &&
            last.family === own.family
          )
            places[places.length - 1] = { ...last, end, text: last.text + shown }
          else
            places.push({
              part: paragraph.part,
              node: paragraph.node,
              start,
              end,
              page: on[0] ?? -1,
              face: faceKey(voice),
              voice: voiceKey(voice),
              place: paragraph.place,
              family: own.family,
              layer: place,
              text: shown,
              empty,
              view: viewOf(story.role),
            })
        }
        for (const run of runs)
          if (text.slice(run.start, run.end) !== objectSign && run.end > run.start)
            put(run.style, run.slot, run.start, run.end)
        // An empty paragraph has its mark: it gives its line the height of the absent face.
        if (text === '' && !object) put(cascade.paragraph(paragraph, story.role).text, 'western', 0, 0)
      }
    }
  }
  for (const reference of fontReferences(document)) {
    for (const family of reference.families) {
      if (!gathered.has(familyKey(family)) && !isAbsent(family, reference.slot ?? 'western')) continue
      const own = gather(family)
      own.references.push(reference)
      if (reference.symbols) own.symbols = true
      const layer = layerOf(own, referenceLayer(reference))
      layer.references++
      if (reference.kind !== 'declaration') layer.owners.add(reference.owner)
    }
  }
  for (const sub of document.subdocuments) {
    const { content, styles } = readScopes(document, sub)
    for (const scope of [styles, content])
      for (const face of scope?.faces.values() ?? [])
        for (const family of face.families.slice(0, 1)) gathered.get(familyKey(family))?.declarations.push(face)
  }
  const faces = [...gathered.values()]
    .map((own): AbsentFace => ({
      family: own.family,
      status: statusOf(own.family) === 'alias' ? 'alias' : 'absent',
      symbols: own.symbols,
      characters: own.characters,
      onlySpaces: own.characters > 0 && own.spaces,
      emptyMarks: own.emptyMarks,
      layers: absentLayers.flatMap(layer => {
        const found = own.layers.get(layer)
        return found
          ? [
              {
                layer,
                references: found.references,
                characters: found.characters,
                owners: [...found.owners].slice(0, 30),
              },
            ]
          : []
      }),
      pages: [...own.pages].sort((a, b) => a - b),
      standIn: own.standIn,
      reason: own.reason,
      name: nameOf(own),
      files: [...new Set(own.declarations.flatMap(face => face.files))],
      codePoints: [...own.codePoints.keys()],
    }))
    .sort(
      (a, b) =>
        a.status.localeCompare(b.status) ||
        b.characters - a.characters ||
        b.emptyMarks - a.emptyMarks ||
        a.family.localeCompare(b.family),
    )
  return { faces, places: places.filter(place => faces.some(face => sameFamily(face.family, place.family))) }
}

/** What the document says of a family beside its name. */
function nameOf(own: Gathered): AbsentName {
  const stated = (attribute: string) =>
    own.declarations.map(face => face.attributes[attribute]).find(value => value !== undefined && value !== '') ?? ''
  const upem = Number.parseFloat(stated('svg:units-per-em')) || 1000
  const measure = (attribute: string): number | null => {
    const value = Number.parseFloat(stated(attribute))
    return Number.isFinite(value) && value > 0 ? (percent(stated(attribute)) ?? value / upem) * 1000 : null
  }
  const measures = {
    xHeight: measure('svg:x-height'),
    capHeight: measure('svg:cap-height'),
    stem: measure('svg:stemv'),
  }
  const [most] = [...own.weights].sort((a, b) => b[1] - a[1])
  const [weight, italic] = (most?.[0] ?? '400|false').split('|')
  return {
    family: own.family,
    generic: stated('style:font-family-generic'),
    pitch: stated('style:font-pitch'),
    panose: stated('svg:panose-1')
      .split(/\s+/)
      .filter(value => /^\d+$/.test(value))
      .map(Number),
    stated: Object.fromEntries(
      Object.entries(measures).filter((entry): entry is [string, number] => entry[1] !== null),
    ),
    weight: Number(weight),
    italic: italic === 'true',
  }
}
