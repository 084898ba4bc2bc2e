import type { XmlElement, XmlPart } from '../xml/tree'
import { isRound, type ChartKind } from './chart'
import type { Block, Holder, Paragraph, Place, Story } from './story-model'
import { shapeNames } from './story-elements'
import { StoryReader } from './story-reader'

const headerRoles: Readonly<Record<string, Story['role']>> = {
  'style:header': 'header',
  'style:header-left': 'header-left',
  'style:header-first': 'header-first',
  'style:footer': 'footer',
  'style:footer-left': 'footer-left',
  'style:footer-first': 'footer-first',
}
/** What was read of an earlier state of a part: what has not changed since is taken over, object for object. */
export interface EarlierStories {
  readonly part: XmlPart
  readonly stories: readonly Story[]
}

/** A paragraph with the story it stands in. */
export interface StoryParagraph {
  readonly paragraph: Paragraph
  readonly story: Story
}

/** All paragraphs of stories, also of those that only keep what tracked changes deleted. */
export function* allParagraphs({ stories }: { readonly stories: readonly Story[] }): Generator<StoryParagraph> {
  for (const story of stories) for (const paragraph of paragraphsOf(story.blocks)) yield { paragraph, story }
}

/** All paragraphs of text that stands: what a tracked change deleted is kept for whoever refuses the change, and is not text. */
export function* standingParagraphs(of: { readonly stories: readonly Story[] }): Generator<StoryParagraph> {
  for (const each of allParagraphs(of)) if (each.story.role !== 'deletions') yield each
}

/** The stories of a text document or of a part with master pages. */
export function readStories(part: XmlPart, earlier?: EarlierStories): Story[] {
  if (earlier && earlier.part === part) return [...earlier.stories]
  const changed = earlier ? part.differences(earlier.part) : null
  const reader = new StoryReader(part)
  const stories: Story[] = []
  const { rootElement } = part
  const body = part.first(rootElement, 'office:body')
  if (body) {
    for (const element of part.elements(body)) {
      const chart = part.first(element, 'chart:chart')
      if (chart) stories.push(chartStory(part, reader, chart))
      else if (element.name === 'office:presentation' || element.name === 'office:drawing')
        stories.push(...pageStories(part, reader, element, changed, earlier?.stories ?? []))
      else
        stories.push(
          bodyStory(
            part,
            reader,
            element,
            changed,
            earlier?.stories.find(story => story.role === 'body' && story.node === element.id),
          ),
        )
      const tracked = part.first(element, 'text:tracked-changes')
      if (tracked) {
        const blocks = reader.blocks(tracked, { place: 'deletion', holder: null, list: null })
        if (blocks.length > 0)
          stories.push({
            part: part.path,
            node: tracked.id,
            place: 'deletion',
            title: 'Tracked deletions',
            master: null,
            role: 'deletions',
            blocks,
            origins: null,
          })
      }
    }
  }
  const masters = part.first(rootElement, 'office:master-styles')
  if (masters) {
    for (const master of part.elements(masters)) {
      const name = master.attributes['style:name'] ?? ''
      const shown = master.attributes['style:display-name'] ?? name
      if (master.name === 'style:handout-master')
        stories.push(shapesStory(part, reader, master, 'handout', 'header', 'Handout page', null))
      if (master.name !== 'style:master-page') continue
      for (const child of part.elements(master)) {
        if (child.name === 'presentation:notes')
          stories.push(
            shapesStory(part, reader, child, 'master-notes', 'header', `Notes page of master page ${shown}`, name),
          )
        const role = headerRoles[child.name]
        if (!role && !shapeNames.has(child.name)) continue
        const blocks = role
          ? reader.blocks(child, { place: 'header', holder: null, list: null })
          : [reader.frame(child, { place: 'header', holder: null, list: null })]
        const what = role ? (role.startsWith('header') ? 'Header' : 'Footer') : 'Shape'
        stories.push({
          part: part.path,
          node: child.id,
          place: 'header',
          title: `${what} of master page ${shown}`,
          master: name,
          role: role ?? 'master',
          blocks,
          origins: null,
        })
      }
    }
  }
  return stories
}

function shapesStory(
  part: XmlPart,
  reader: StoryReader,
  element: XmlElement,
  role: Story['role'],
  place: Place,
  title: string,
  master: string | null,
): Story {
  const blocks = [...part.elements(element)]
    .filter(child => child.name !== 'presentation:notes')
    .flatMap(child => reader.blocksOf(child, { place, holder: null, list: null }))
  return { part: part.path, node: element.id, place, title, master, role, blocks, origins: null }
}

/**
 * The pages of a presentation or drawing, one story each, and those of their notes (draw:page, ODF 1.4 part 3,
 * 10.2.4).
 */
function pageStories(
  part: XmlPart,
  reader: StoryReader,
  body: XmlElement,
  changed: ReadonlySet<number> | null,
  earlier: readonly Story[],
): Story[] {
  const stories: Story[] = []
  let number = 0
  for (const page of part.elements(body, 'draw:page')) {
    number++
    const name = page.attributes['draw:name'] ?? ''
    // Names that programs give by themselves say nothing.
    const title = `Page ${number}${/^(page)?\s*\d*$/i.test(name) ? '' : `, ${name}`}`
    const make = (element: XmlElement, role: 'page' | 'notes'): void => {
      const kept =
        changed && !changed.has(element.id)
          ? earlier.find(story => story.node === element.id && story.role === role)
          : undefined
      stories.push(
        kept ??
          shapesStory(
            part,
            reader,
            element,
            role,
            role === 'page' ? 'frame' : 'note',
            role === 'page' ? title : `Notes of p${title.slice(1)}`,
            null,
          ),
      )
    }
    make(page, 'page')
    const notes = part.first(page, 'presentation:notes')
    if (notes) make(notes, 'notes')
  }
  return stories
}

function bodyStory(
  part: XmlPart,
  reader: StoryReader,
  body: XmlElement,
  changed: ReadonlySet<number> | null,
  earlier: Story | undefined,
): Story {
  const kept = changed && earlier?.origins ? earlier.origins : null
  // A copy is quicker than making it anew: mostly one entry differs.
  const origins = new Map<number, readonly Block[]>(kept ?? [])
  const all: Block[] = []
  for (const id of body.children) {
    let blocks = kept && !changed!.has(id) ? kept.get(id) : undefined
    if (blocks === undefined) {
      const node = part.node(id)
      if (node.kind !== 'element') continue
      blocks = reader.blocksOf(node, { place: 'body', holder: null, list: null })
      origins.set(id, blocks)
    }
    if (blocks.length === 1) all.push(blocks[0]!)
    else for (const block of blocks) all.push(block)
  }
  return {
    part: part.path,
    node: body.id,
    place: 'body',
    title: 'Text',
    master: null,
    role: 'body',
    blocks: all,
    origins,
  }
}

/**
 * Titles, legends and labels of a chart (chart:chart, ODF 1.4 part 3 section 11), each in the style of its owner. The
 * texts of the chart's own table are shown as labels: its first column along the x axis, its first row in the legend.
 */
function chartStory(part: XmlPart, reader: StoryReader, chart: XmlElement): Story {
  const blocks: Block[] = []
  const styleNames = (element: XmlElement | undefined): string[] =>
    element?.attributes['chart:style-name'] ? [element.attributes['chart:style-name']] : []
  const plot = part.first(chart, 'chart:plot-area')
  const across = plot && [...part.elements(plot, 'chart:axis')].find(axis => axis.attributes['chart:dimension'] === 'x')
  const base = styleNames(chart)
  const texts = (element: XmlElement, names: readonly string[]): void => {
    const holder: Holder = { kind: 'chart-text', node: element.id, styleNames: names, parent: null }
    blocks.push(...reader.blocks(element, { place: 'chart', holder, list: null }))
  }
  // Charts without axes name their categories in the legend.
  const named = isRound((chart.attributes['chart:class'] ?? '').replace(/^.*:/, '') as ChartKind)
    ? part.first(chart, 'chart:legend')
    : across
  const cells = (table: XmlElement): void => {
    for (const row of part.descendants(table)) {
      if (row.name !== 'table:table-row') continue
      const heads = row.parent >= 0 && part.element(row.parent).name === 'table:table-header-rows'
      ;[...part.elements(row)].forEach((cell, index) =>
        texts(cell, [
          ...base,
          ...(heads ? styleNames(part.first(chart, 'chart:legend')) : index === 0 ? styleNames(named) : []),
        ]),
      )
    }
  }
  const visit = (element: XmlElement, names: readonly string[]): void => {
    const own = [...names, ...styleNames(element)]
    if (element.name === 'table:table') cells(element)
    else if ([...part.elements(element)].some(child => child.name === 'text:p' || child.name === 'text:list'))
      texts(element, own)
    else for (const child of part.elements(element)) visit(child, own)
  }
  visit(chart, [])
  return {
    part: part.path,
    node: chart.id,
    place: 'chart',
    title: 'Chart',
    master: null,
    role: 'chart',
    blocks,
    origins: null,
  }
}

/**
 * Every paragraph of some blocks in reading order, those of frames, notes and annotations after the one that
 * anchors them.
 */
export function paragraphsOf(blocks: readonly Block[]): readonly Paragraph[] {
  let found = collected.get(blocks)
  if (!found) {
    const list: Paragraph[] = []
    collectParagraphs(blocks, list)
    collected.set(blocks, (found = list))
  }
  return found
}

/** Blocks never change, and a story is gone through many times over. */
const collected = new WeakMap<readonly Block[], readonly Paragraph[]>()

function collectParagraphs(blocks: readonly Block[], into: Paragraph[]): void {
  for (const block of blocks) {
    if (block.kind === 'paragraph') {
      into.push(block)
      for (const inline of block.inlines) {
        if (inline.kind === 'frame') collectParagraphs([inline.frame], into)
        else if (inline.kind === 'note' || inline.kind === 'annotation') collectParagraphs(inline.blocks, into)
      }
    } else if (block.kind === 'table')
      for (const row of block.rows) for (const cell of row.cells) collectParagraphs(cell.blocks, into)
    else collectParagraphs(block.blocks, into)
  }
}
