import type { OdfDocument } from '../document/open'
import { paragraphsOf } from '../document/stories'
import type { Block, Frame, Story } from '../document/story-model'
import type { Cascade } from '../style/cascade'
import type { XmlElement, XmlPart } from '../xml/tree'
import type { BoxComposer } from './boxes'
import { turned, type Fragment, type FrameFill } from './fragments'
import { geometryOf, type PageGeometry } from './geometry'
import { after, scaling, translation } from './matrix'
import type { Page } from './page'
import { formatNumber } from './numbering'
import { painted } from './fills'
import { paintsOf, type Paints } from './paint'
import type { PictureSize } from './pictures'
import type { PageFields } from './paragraph-model'
import { shapePlace } from './shape-place'

/**
 * Which pages of a document: its own, those of its speaker notes, or its master pages with their notes and
 * handouts.
 */
export type PageView = 'pages' | 'notes' | 'masters'

/** A presentation or drawing as it is written: pages in order, with what stands on their masters. */
export interface DrawingPlan {
  readonly document: OdfDocument
  readonly stories: readonly Story[]
  readonly cascade: Cascade
  readonly geometries: ReadonlyMap<string, PageGeometry>
  readonly boxesFor: (fields: PageFields) => BoxComposer
  readonly unlaid: (feature: string, user: string | number) => void
  readonly pictureSize: PictureSize
}

/**
 * What placeholders of masters are drawn on pages: those that every page shows, not those that pages fill
 * themselves.
 */
const shownOnPages: ReadonlySet<string> = new Set([
  '',
  'header',
  'footer',
  'date-time',
  'page-number',
  'graphic',
  'object',
  'chart',
  'table',
  'orgchart',
])
const isBackdrop = (name: string) => /^(header|footer|date-time|page-number)$/.test(name)

/** Sets the pages of a presentation or drawing: each by itself, when it is asked for. */
export class DrawingPages {
  private readonly pages: readonly { readonly story: Story; readonly element: XmlElement; readonly part: XmlPart }[]
  private readonly known = new Map<string, Page>()
  private readonly paints: Paints
  readonly fills = new Map<string, FrameFill>()

  constructor(private readonly plan: DrawingPlan) {
    this.pages = plan.stories
      .filter(story => story.role === 'page')
      .map(story => ({
        story,
        part: plan.cascade.scope(story.part).part,
        element: plan.cascade.scope(story.part).part.element(story.node),
      }))
    this.paints = paintsOf(plan)
  }

  /** Takes over pages of the document before a change, where nothing on them or below them has changed. */
  takeOver(earlier: DrawingPages): void {
    const same = (role: Story['role']) =>
      this.plan.stories
        .filter(story => story.role === role)
        .every((story, at) => story === earlier.plan.stories.filter(each => each.role === role)[at])
    if (!(['master', 'master-notes', 'handout'] as const).every(same) || this.count !== earlier.count) return
    this.pages.forEach(({ story }, index) => {
      const page = earlier.pages[index]?.story === story ? earlier.known.get(`pages ${index}`) : undefined
      if (page) this.known.set(`pages ${index}`, page)
    })
    for (const [key, fill] of earlier.fills) this.fills.set(key, fill)
  }

  get count(): number {
    return this.pages.length
  }

  /** How many pages a view has. */
  countOf(view: PageView): number {
    if (view === 'pages') return this.count
    return view === 'notes' ? this.notesPages.length : this.masterPages.length
  }

  page(index: number, view: PageView = 'pages'): Page | null {
    const key = `${view} ${index}`
    let page = this.known.get(key) ?? null
    if (!page && index >= 0 && index < this.countOf(view)) {
      page =
        view === 'pages'
          ? this.makePage(index)
          : view === 'notes'
            ? this.makeNotes(this.notesPages[index]!)
            : this.masterPages[index]!.make()
      this.known.set(key, page)
    }
    return page
  }

  private masterOf(element: XmlElement): string {
    const { geometries } = this.plan
    const name = element.attributes['draw:master-page-name'] ?? ''
    return geometries.has(name) ? name : [...geometries.keys()][0]!
  }

  private fields(index: number, element: XmlElement | null): PageFields {
    const { part } = this.pages[0] ?? { part: null }
    const declared = (kind: string, use: string | undefined): string | null => {
      const name = use === undefined ? undefined : element?.attributes[use]
      if (!part || name === undefined) return null
      const body = element!.parent >= 0 ? part.element(element!.parent) : null
      const found =
        body &&
        [...part.elements(body, `presentation:${kind}-decl`)].find(
          each => each.attributes['presentation:name'] === name,
        )
      return found ? part.textOf(found.id) : null
    }
    const format = this.plan.geometries.get(element ? this.masterOf(element) : '')?.numberFormat ?? '1'
    return {
      pageNumber: shift => formatNumber(index + 1 + shift, format === '' ? '1' : format),
      pageCount: String(this.count),
      chapter: null,
      header: declared('header', 'presentation:use-header-name'),
      footer: declared('footer', 'presentation:use-footer-name'),
      dateTime: declared('date-time', 'presentation:use-date-time-name'),
    }
  }

  /** Properties of a page's own style on top of its master's. */
  private pageProperties(boxes: BoxComposer, part: string, element: XmlElement): Readonly<Record<string, string>> {
    return boxes.styles.propertiesElement(
      part,
      'drawing-page',
      element.attributes['draw:style-name'] ?? null,
      'style:drawing-page-properties',
    )
  }

  private masterElement(name: string): { part: XmlPart; element: XmlElement } | null {
    for (const { part } of this.plan.cascade.scopes.values()) {
      const masters = part.first(part.rootElement, 'office:master-styles')
      for (const element of masters ? part.elements(masters, 'style:master-page') : [])
        if (element.attributes['style:name'] === name) return { part, element }
    }
    return null
  }

  private ground(
    properties: readonly Readonly<Record<string, string>>[],
    geometry: PageGeometry,
    user: number,
  ): { background: string; fragments: Fragment[] } {
    const own = properties.find(each => each['draw:fill'] !== undefined) ?? {}
    const fill = this.paints.fill(own, false, user)
    if (!fill) return { background: geometry.background, fragments: [] }
    if (fill.color && !fill.hatch && fill.opacity === 1) return { background: fill.color, fragments: [] }
    const { width, height } = geometry
    const data = `M0 0 L${width} 0 L${width} ${height} L0 ${height} Z`
    return { background: geometry.background, fragments: painted(data, geometry, fill, null, 'Background') }
  }

  private makePage(index: number): Page {
    const { story, element, part } = this.pages[index]!
    const { cascade, geometries, stories, boxesFor } = this.plan
    const master = this.masterOf(element)
    const geometry = geometries.get(master)!
    const boxes = boxesFor(this.fields(index, element))
    const own = this.pageProperties(boxes, part.path, element)
    const above = this.masterElement(master)
    const masterProperties = above ? this.pageProperties(boxes, above.part.path, above.element) : {}
    const grounds = own['presentation:background-visible'] === 'false' ? [own] : [own, masterProperties]
    const { background, fragments } = this.ground(grounds, geometry, element.id)
    if (own['presentation:background-objects-visible'] !== 'false') {
      const displays: Readonly<Record<string, string>> = {
        header: 'presentation:display-header',
        footer: 'presentation:display-footer',
        'date-time': 'presentation:display-date-time',
        'page-number': 'presentation:display-page-number',
      }
      for (const each of stories) {
        if (each.role !== 'master' || each.master !== master) continue
        for (const block of each.blocks) {
          if (block.kind !== 'frame' || !shownOnPages.has(block.placeholder)) continue
          if (isBackdrop(block.placeholder) && own[displays[block.placeholder]!] === 'false') continue
          if (this.isEmptyPlaceholder(block)) continue
          fragments.push(...boxes.placed(block, each.role).fragments)
        }
      }
    }
    this.shapes(story.blocks, story.role, boxes, fragments)
    for (const [key, fill] of boxes.fills) this.fills.set(key, fill)
    return {
      index,
      number: String(index + 1),
      name: this.titleOf(story) || (element.attributes['draw:name'] ?? ''),
      node: element.id,
      geometry: { ...geometry, background },
      fragments,
      cascade,
    }
  }

  /** What a page is about: the text of its title. */
  private titleOf(story: Story): string {
    const title = story.blocks.find(block => block.kind === 'frame' && block.placeholder === 'title')
    return title
      ? paragraphsOf([title])
          .map(paragraph => this.plan.cascade.scope(paragraph.part).part.textOf(paragraph.node))
          .join(' ')
          .replace(/\s+/g, ' ')
          .trim()
      : ''
  }

  private isEmptyPlaceholder(frame: Frame): boolean {
    return (
      this.plan.cascade.scope(frame.part).part.element(frame.node).attributes['presentation:placeholder'] === 'true' &&
      !isBackdrop(frame.placeholder)
    )
  }

  private shapes(blocks: readonly Block[], role: Story['role'], boxes: BoxComposer, into: Fragment[]): void {
    // Shapes may be given an order of their own (draw:z-index, 19.235); without one they lie as they come.
    const frames = blocks.filter(block => block.kind === 'frame')
    const order = (frame: Frame) =>
      Number.parseInt(this.plan.cascade.scope(frame.part).part.element(frame.node).attributes['draw:z-index'] ?? '', 10)
    const sorted = frames.some(frame => Number.isFinite(order(frame)))
      ? [...frames].sort((a, b) => (order(a) || 0) - (order(b) || 0))
      : frames
    for (const frame of sorted) {
      if (frame.shape === 'draw:page-thumbnail') continue
      into.push(...boxes.placed(frame, role).fragments)
    }
  }

  private get notesPages(): readonly number[] {
    return this.pages.flatMap(({ element, part }, index) => (part.first(element, 'presentation:notes') ? [index] : []))
  }

  private layoutOf(name: string | undefined, fallback: PageGeometry): PageGeometry {
    for (const { part } of this.plan.cascade.scopes.values()) {
      const geometry = name === undefined ? null : geometryOf(part, name)
      if (geometry) return geometry
    }
    return fallback
  }

  /** A notes page: the page small, and what is said to it, in its real type. */
  private makeNotes(index: number): Page {
    const { element, part } = this.pages[index]!
    const { cascade, geometries, stories, boxesFor } = this.plan
    const notes = part.first(element, 'presentation:notes')!
    const master = this.masterOf(element)
    const above = this.masterElement(master)
    const masterNotes = above ? above.part.first(above.element, 'presentation:notes') : undefined
    const geometry = this.layoutOf(
      notes.attributes['style:page-layout-name'] ?? masterNotes?.attributes['style:page-layout-name'],
      geometries.get(master)!,
    )
    const boxes = boxesFor(this.fields(index, notes))
    const fragments: Fragment[] = []
    const own = this.pageProperties(boxes, part.path, notes)
    const displays: Readonly<Record<string, string>> = {
      header: 'presentation:display-header',
      footer: 'presentation:display-footer',
      'date-time': 'presentation:display-date-time',
      'page-number': 'presentation:display-page-number',
    }
    for (const each of stories) {
      if (each.role !== 'master-notes' || each.master !== master) continue
      for (const block of each.blocks) {
        if (
          block.kind !== 'frame' ||
          !shownOnPages.has(block.placeholder) ||
          block.shape === 'draw:page-thumbnail' ||
          this.isEmptyPlaceholder(block)
        )
          continue
        if (isBackdrop(block.placeholder) && own[displays[block.placeholder]!] === 'false') continue
        fragments.push(...boxes.placed(block, each.role).fragments)
      }
    }
    const story = stories.find(each => each.role === 'notes' && each.node === notes.id)
    for (const block of story?.blocks ?? [])
      if (block.kind === 'frame' && block.shape === 'draw:page-thumbnail')
        fragments.push(...this.thumbnail(block, index))
    if (story) this.shapes(story.blocks, 'notes', boxes, fragments)
    for (const [key, fill] of boxes.fills) this.fills.set(key, fill)
    return {
      index,
      number: `${index + 1}, notes`,
      name: element.attributes['draw:name'] ?? '',
      node: notes.id,
      geometry,
      fragments,
      cascade,
    }
  }

  /** A page in the place of its small picture. */
  private thumbnail(frame: Frame, index: number): Fragment[] {
    const element = this.plan.cascade.scope(frame.part).part.element(frame.node)
    const place = shapePlace(element)
    const page = this.page(index)
    if (!page || place.width <= 0) return []
    const { width, height } = page.geometry
    const scale = Math.min(place.width / width, place.height / height)
    const matrix = after(
      place.matrix,
      after(translation((place.width - width * scale) / 2, (place.height - height * scale) / 2), scaling(scale, scale)),
    )
    const sheet: Fragment = {
      kind: 'box',
      fill: page.geometry.background || '#ffffff',
      stroke: '#b9b3a3',
      strokeWidth: 0.5 / scale,
      x: 0,
      y: 0,
      width,
      height,
    }
    return turned([sheet, ...page.fragments.filter(each => each.kind !== 'overset')], matrix).map(each => ({ ...each }))
  }

  /** Master pages, the notes pages of each, and the handout: where old type likes to hide. */
  private get masterPages(): readonly { readonly make: () => Page }[] {
    const { geometries, stories, cascade, boxesFor } = this.plan
    const list: { make: () => Page }[] = []
    const page = (
      title: string,
      geometry: PageGeometry,
      own: readonly Story[],
      node: number,
      properties: readonly Readonly<Record<string, string>>[],
    ) => {
      const index = list.length
      list.push({
        make: () => {
          const boxes = boxesFor({
            pageNumber: () => '1',
            pageCount: String(this.count),
            chapter: null,
            header: 'header',
            footer: 'footer',
            dateTime: 'date',
          })
          const { background, fragments } = this.ground(properties, geometry, node)
          for (const story of own) {
            this.shapes(story.blocks, story.role, boxes, fragments)
            for (const block of story.blocks)
              if (block.kind === 'frame' && block.shape === 'draw:page-thumbnail')
                fragments.push(...thumbnailPlace(cascade.scope(block.part).part.element(block.node)))
          }
          return { index, number: title, name: title, node, geometry: { ...geometry, background }, fragments, cascade }
        },
      })
    }
    for (const [name, geometry] of geometries) {
      const above = this.masterElement(name)
      if (!above) continue
      const boxes = boxesFor(this.fields(0, null))
      page(
        `Master ${geometry.title}`,
        geometry,
        stories.filter(story => story.role === 'master' && story.master === name),
        above.element.id,
        [this.pageProperties(boxes, above.part.path, above.element)],
      )
      const notes = above.part.first(above.element, 'presentation:notes')
      if (notes)
        page(
          `Notes of master ${geometry.title}`,
          this.layoutOf(notes.attributes['style:page-layout-name'], geometry),
          stories.filter(story => story.role === 'master-notes' && story.master === name),
          notes.id,
          [],
        )
    }
    for (const story of stories) {
      if (story.role !== 'handout') continue
      const element = cascade.scope(story.part).part.element(story.node)
      page(
        'Handout',
        this.layoutOf(element.attributes['style:page-layout-name'], [...geometries.values()][0]!),
        [story],
        element.id,
        [],
      )
    }
    return list
  }
}

/** On masters, the place where a page stands in small. */
function thumbnailPlace(element: XmlElement): readonly Fragment[] {
  const { matrix, width, height } = shapePlace(element)
  return turned([{ kind: 'object', title: 'Page', href: '', x: 0, y: 0, width, height }], matrix)
}
