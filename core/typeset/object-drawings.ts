import { readChart, type Chart } from '../document/chart'
import type { Paragraph } from '../document/story-model'
import type { Cascade } from '../style/cascade'
import type { ObjectText, Reading } from '../style/reading'
import { BoxComposer } from './boxes'
import { FrameChains } from './frame-chains'
import { ChartDrawing } from './chart-drawing'
import type { Fragment } from './fragments'
import { FormulaError, FormulaSetter } from './formula'
import { numberParagraphs } from './numbering'
import type { Workshop } from './paragraph-model'

interface Known {
  readonly object: ObjectText
  readonly chart: Chart | null
  readonly drawn: Map<string, readonly Fragment[] | null>
}

/** Draws the charts and formulas of a document from their own data, in their own type. */
export class ObjectComposer {
  private readonly known = new Map<string, Known>()

  /** @param earlier that of the document before a change: what it did not touch is taken over, at once */
  constructor(
    private readonly reading: Reading,
    private readonly workshop: Workshop,
    earlier?: ObjectComposer,
  ) {
    if (!earlier) return
    const sameSetting = earlier.workshop.typesetter === workshop.typesetter
    for (const object of reading.objects) {
      const before = earlier.known.get(object.prefix)
      // Formulas that name no face take that of the text.
      const sameText = object.sub.kind === 'chart' || earlier.reading.cascade === reading.cascade
      if (before?.object === object && sameText)
        this.known.set(object.prefix, { ...before, drawn: sameSetting ? before.drawn : new Map() })
    }
  }

  private open(prefix: string): Known | null {
    const known = this.known.get(prefix)
    if (known) return known
    const object = this.reading.objects.find(each => each.prefix === prefix)
    if (!object) return null
    const made: Known = {
      object,
      chart: object.sub.kind === 'chart' ? readChart(this.reading.document.parts.get(object.sub.content!)!) : null,
      drawn: new Map(),
    }
    this.known.set(prefix, made)
    return made
  }

  /** What styles the text of a part of an object; null for parts that belong to none. */
  cascadeOf(part: string): Cascade | null {
    return this.reading.objects.find(({ sub }) => sub.content === part || sub.styles === part)?.cascade ?? null
  }

  /** A chart or formula in a box; null where the object is neither, or too much. Lengths in points. */
  compose(href: string, width: number, height: number): readonly Fragment[] | null {
    const known = this.open(`${href.replace(/^\.\//, '')}/`)
    if (!known || width <= 0 || height <= 0) return null
    const key = `${width} ${height}`
    let drawn = known.drawn.get(key)
    if (drawn === undefined) known.drawn.set(key, (drawn = this.draw(known, width, height)))
    return drawn
  }

  private draw({ object, chart }: Known, width: number, height: number): readonly Fragment[] | null {
    if (object.sub.kind === 'formula') return this.formula(object, width, height)
    if (!chart) return null
    const { cascade, stories } = object
    const labels = numberParagraphs(stories, cascade)
    const boxes = new BoxComposer(
      { ...this.workshop, cascade, labels, fields: null, rightToLeft: false },
      { title: () => 'Object', compose: () => null, isShown: () => false },
      new FrameChains([], () => ''),
    )
    return new ChartDrawing(chart, boxes)
      .draw(width, height)
      .map(fragment => (fragment.kind === 'lines' ? { ...fragment, cascade } : fragment))
  }

  private formula(object: ObjectText, width: number, height: number): readonly Fragment[] | null {
    const { parts } = this.reading.document
    const { typesetter, unlaid } = this.workshop
    const part = parts.get(object.sub.content!)!
    if (part.rootElement.name !== 'math:math') return null
    const settings = object.sub.settings === null ? null : parts.get(object.sub.settings)!
    const { content } = this.reading.document.subdocuments[0]!
    const plain = this.reading.cascade.text(plainParagraph(content!), null, 'body')
    const base = typesetter.look(plain, 'western')
    try {
      return new FormulaSetter(part, settings, base, typesetter).draw(width, height)
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error
      unlaid(`${error.message} (not drawn)`, object.prefix)
      return null
    }
  }
}

/** Text that says nothing of itself: a formula looks so where nothing else is said. */
const plainParagraph = (part: string): Paragraph => ({
  kind: 'paragraph',
  part,
  node: -1,
  place: 'body',
  styleName: null,
  classNames: [],
  heading: null,
  list: null,
  holder: null,
  inlines: [],
  mark: null,
})
