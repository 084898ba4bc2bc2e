import type { FaceDeclaration } from '../document/styles'
import type { Paragraph, Story } from '../document/story-model'
import { familyKey } from '../document/font-family'
import { fontReferences, type FontReference } from '../document/font-references'
import type { Slot } from '../document/font-attributes'
import type { OdfDocument } from '../document/open'
import { paragraphsOf } from '../document/stories'
import { readScopes } from '../document/styles'
import type { Library, Resolution } from '../font/library'
import type { TextStyle } from '../style/cascade'
import type { StyledText } from '../style/reading'
import { paragraphText } from '../style/runs'
import type { Composition } from '../typeset/compose'
import type { PageView } from '../typeset/drawing-pages'
import type { AbsentLayer, AbsentPlace } from './absent-model'
import { countedRuns } from './counted-text'
import { resolutionOf, resolutionOfName } from './resolution'
import { pagesOf } from './text-pages'
import { faceKey, voiceKey, voiceOf } from './voices'

/** A weight and posture that is asked of a family, with how many characters ask for it. */
interface AskedLook {
  readonly weight: number
  readonly italic: boolean
  characters: number
}

/** What is gathered of one family. */
export class AbsentFamily {
  characters = 0
  /** All of it is white space so far. */
  spaces = true
  emptyMarks = 0
  standIn = ''
  reason = ''
  symbols = false
  readonly layers = new Map<AbsentLayer, { references: number; characters: number; owners: Set<string> }>()
  readonly pages = new Set<number>()
  readonly codePoints = new Set<number>()
  readonly looks: AskedLook[] = []
  readonly declarations: FaceDeclaration[] = []

  constructor(
    /** As the file has it. */
    readonly family: string,
  ) {}

  layer(layer: AbsentLayer) {
    let found = this.layers.get(layer)
    if (!found) this.layers.set(layer, (found = { references: 0, characters: 0, owners: new Set() }))
    return found
  }

  /** Counts text that is set in it; without text it is the mark of an empty paragraph. */
  add(shown: string, style: TextStyle, slot: Slot, resolution: Resolution): void {
    const { weight, posture } = style.effective.slots[slot]
    const italic = posture !== 'normal'
    const characters = [...shown]
    this.characters += characters.length
    if (shown === '') this.emptyMarks++
    else if (!/^\s*$/.test(shown)) this.spaces = false
    if (this.standIn === '') [this.standIn, this.reason] = [resolution.face.family, resolution.reason]
    let look = this.looks.find(each => each.weight === weight && each.italic === italic)
    if (!look) this.looks.push((look = { weight, italic, characters: 0 }))
    look.characters += characters.length
    for (const character of characters) this.codePoints.add(character.codePointAt(0)!)
  }
}

/** Gathers absent families from text, from references and from declarations, in this order. */
export class AbsentTally {
  /** By the key of their name. */
  readonly families = new Map<string, AbsentFamily>()
  readonly places: AbsentPlace[] = []
  private readonly pagesOf: ReturnType<typeof pagesOf>
  private readonly off: ReadonlySet<string>

  constructor(
    private readonly library: Library,
    composition: Composition,
  ) {
    this.pagesOf = pagesOf(composition)
    this.off = offPage(composition)
  }

  private gather(family: string): AbsentFamily {
    const key = familyKey(family)
    let own = this.families.get(key)
    if (!own) this.families.set(key, (own = new AbsentFamily(family)))
    return own
  }

  statusOf(family: string, slot: Slot = 'western'): Resolution['status'] {
    return family === '' ? 'unnamed' : resolutionOfName(this.library, family, slot).status
  }

  /** Text that is set in absent faces. */
  takeText({ stories, cascade, prefix }: StyledText): void {
    const object = prefix !== ''
    for (const story of stories)
      for (const paragraph of paragraphsOf(story.blocks)) {
        const runs = countedRuns(paragraph, cascade, story.role, this.library)
        // Words are taken apart only where some are in a face that is not here.
        const absent = runs.filter(run => !run.object && run.end > run.start && isAway(run.of.resolution))
        const text = absent.length > 0 ? paragraphText(paragraph) : ''
        for (const { of, start, end } of absent)
          this.put(story, paragraph, object, of.style, of.slot, { start, end, text: text.slice(start, end) })
        // An empty paragraph has its mark: it gives its line the height of the absent face.
        if (runs.length === 0 && !object)
          this.put(story, paragraph, object, cascade.text(paragraph, paragraph.mark, story.role), 'western', {
            start: 0,
            end: 0,
            text: '',
          })
      }
  }

  private put(
    story: Story,
    paragraph: Paragraph,
    object: boolean,
    style: TextStyle,
    slot: Slot,
    { start, end, text }: { readonly start: number; readonly end: number; readonly text: string },
  ): void {
    const resolution = resolutionOf(this.library, style, slot)
    if (!isAway(resolution)) return
    const { font } = style.effective.slots[slot]
    const setBy = style.effective.layers[font.layer]
    const own = this.gather(font.family)
    own.add(text, style, slot, resolution)
    const layer = this.layerOf(story, paragraph, object, setBy)
    const counted = own.layer(layer)
    counted.characters += [...text].length
    counted.owners.add(
      layer === 'off-page'
        ? story.title
        : setBy
          ? setBy.style.displayName || `${setBy.style.family} default`
          : 'no style',
    )
    const { part, node, place } = paragraph
    const pages = object ? [] : this.pagesOf(part, node, start, Math.max(end, start + 1))
    for (const page of pages) own.pages.add(page)
    const last = this.places.at(-1)
    if (text !== '' && last && goesOn(last, paragraph, own.family, start))
      this.places[this.places.length - 1] = { ...last, end, text: last.text + text }
    else {
      const voice = voiceOf(style, slot)
      this.places.push({
        part,
        node,
        start,
        end,
        page: pages[0] ?? -1,
        face: faceKey(voice),
        voice: voiceKey(voice),
        place,
        family: own.family,
        layer,
        text,
        empty: text === '',
        view: viewOf(story.role),
      })
    }
  }

  /** Where it is before what set it: what stands off the page or on a master is looked for there. */
  private layerOf(
    story: Story,
    paragraph: Paragraph,
    object: boolean,
    setBy: TextStyle['effective']['layers'][number] | undefined,
  ): AbsentLayer {
    if (object) return 'chart'
    if (this.off.has(`${paragraph.part}#${paragraph.node}`)) return 'off-page'
    if (viewOf(story.role) === 'masters') return 'master'
    if (paragraph.place === 'header' || paragraph.place === 'note') return paragraph.place
    if (setBy?.local) return 'stray'
    return setBy?.from === 'default' ? 'default' : 'style'
  }

  /** References that name absent families, whether text is set in them or not. */
  takeReferences(document: OdfDocument): void {
    for (const reference of fontReferences(document))
      for (const family of reference.families) {
        const status = this.statusOf(family, reference.slot ?? 'western')
        if (!this.families.has(familyKey(family)) && status !== 'absent' && status !== 'alias') continue
        const own = this.gather(family)
        if (reference.symbols) own.symbols = true
        const layer = own.layer(referenceLayer(reference))
        layer.references++
        if (reference.kind !== 'declaration') layer.owners.add(reference.owner)
      }
  }

  /** What the document declares of the families that were gathered. */
  takeDeclarations(document: OdfDocument): void {
    for (const sub of document.subdocuments) {
      const { content, styles } = readScopes(document, sub)
      for (const scope of [styles, content])
        for (const face of scope?.faces.values() ?? []) {
          const [family] = face.families
          if (family !== undefined) this.families.get(familyKey(family))?.declarations.push(face)
        }
    }
  }
}

/** Whether a font is shown by another face than its own. */
const isAway = ({ status }: Resolution): boolean => status === 'absent' || status === 'alias'

/** Whether text that begins at `start` goes on with a place. */
const goesOn = (last: AbsentPlace, { part, node }: Paragraph, family: string, start: number): boolean =>
  !last.empty && last.part === part && last.node === node && last.end === start && last.family === family

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
