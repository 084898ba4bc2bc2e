import { readChart, type Chart } from '../document/chart'
import type { Cascade } from '../style/cascade'
import type { ObjectText, Reading } from '../style/reading'
import { BoxComposer, FrameChains } from './boxes'
import { ChartDrawing } from './chart-drawing'
import type { Fragment } from './fragments'
import { numberParagraphs } from './numbering'
import type { Workshop } from './paragraph'

interface Known {
  readonly object: ObjectText
  readonly chart: Chart | null
  readonly drawn: Map<string, readonly Fragment[]>
}

/** Draws the charts of a document from their own data, in their own type. */
export class ChartComposer {
  private readonly known = new Map<string, Known>()

  /** @param earlier that of the document before a change: charts that it did not touch are taken over, at once */
  constructor(
    private readonly reading: Reading,
    private readonly workshop: Workshop,
    earlier?: ChartComposer,
  ) {
    if (!earlier) return
    const sameSetting = earlier.workshop.typesetter === workshop.typesetter
    for (const object of reading.objects) {
      const before = earlier.known.get(object.prefix)
      if (before?.object === object)
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

  /** A chart in a box; null where the object is no chart. Lengths in points. */
  compose(href: string, width: number, height: number): readonly Fragment[] | null {
    const known = this.open(`${href.replace(/^\.\//, '')}/`)
    if (!known?.chart || width <= 0 || height <= 0) return null
    const key = `${width} ${height}`
    let drawn = known.drawn.get(key)
    if (!drawn) {
      const { cascade, stories } = known.object
      const labels = numberParagraphs(stories, cascade)
      const boxes = new BoxComposer(
        { ...this.workshop, cascade, labels, fields: null, rightToLeft: false },
        { title: () => 'Object', compose: () => null, isShown: () => false },
        new FrameChains([], () => ''),
      )
      drawn = new ChartDrawing(known.chart, boxes)
        .draw(width, height)
        .map(fragment => (fragment.kind === 'lines' ? { ...fragment, cascade } : fragment))
      known.drawn.set(key, drawn)
    }
    return drawn
  }
}
