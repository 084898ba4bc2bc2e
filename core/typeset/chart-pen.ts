import { shownByChart, type Chart, type ChartText } from '../document/chart'
import { points } from '../document/lengths'
import type { Block } from '../document/story-model'
import { findStyle, type Properties } from '../document/styles'
import type { BoxComposer } from './boxes'
import type { Area } from './chart-plots'
import { writeNumber } from './chart-scale'
import { painted } from './fills'
import { shifted, turned, type Fragment } from './fragments'
import { after, translation, type Matrix } from './matrix'
import { paintsOf, type Paints } from './paint'
import { longestLine } from './shapes'

/** Text set in one block, as wide as it is. */
export interface SetBlock {
  readonly width: number
  readonly height: number
  readonly fragments: readonly Fragment[]
}

/** A line that may be as long as it likes, in points. */
const endless = 20_000

/** What all parts of a chart draw with: its styles, its text, and what has been drawn so far. */
export class ChartPen {
  readonly fragments: Fragment[] = []
  private readonly paints: Paints

  constructor(
    readonly chart: Chart,
    private readonly boxes: BoxComposer,
  ) {
    this.paints = paintsOf(boxes.workshop)
  }

  /** Says what of the chart is not drawn as the file has it. */
  unlaid(what: string): void {
    this.boxes.workshop.unlaid(what, this.chart.node)
  }

  draw(fragments: readonly Fragment[]): void {
    this.fragments.push(...fragments)
  }

  /** Properties of styles of the chart, the last one winning. */
  properties(kind: 'chart' | 'graphic', names: readonly (string | null)[]): Properties {
    const { part } = this.chart
    return Object.assign(
      {},
      ...names.map(name =>
        kind === 'chart'
          ? this.boxes.styles.propertiesElement(part, 'chart', name, 'style:chart-properties')
          : this.boxes.styles.properties(part, 'chart', name, 'graphic'),
      ),
    ) as Properties
  }

  /** The attributes of an element of the chart. */
  attributesOf(node: number): Properties {
    return this.boxes.workshop.cascade.scope(this.chart.part).part.element(node).attributes
  }

  /** How the numbers of a style are written: the name of its data style. */
  dataStyle(styleName: string | null): string | undefined {
    if (styleName === null) return undefined
    const scope = this.boxes.workshop.cascade.scope(this.chart.part)
    return findStyle(scope, 'chart', styleName)?.attributes['style:data-style-name']
  }

  /** A number as a data style writes it. */
  number(value: number, dataStyle: string | undefined): string {
    return writeNumber(value, this.boxes.workshop.cascade.scope(this.chart.part), dataStyle)
  }

  /** Puts text at its own place, or at one that is given where it has none. */
  place(set: SetBlock, at: ChartText['at'], x: number, y: number): void {
    this.fragments.push(...shifted(set.fragments, at ? (points(at.x) ?? x) : x, at ? (points(at.y) ?? y) : y))
  }

  /** Fills an area and draws around it, as properties say. */
  rectangle(area: Area, properties: Properties, stroked: boolean): void {
    const fill = this.paints.fill(properties, false, this.chart.node)
    const stroke = this.paints.stroke(properties, stroked)
    const data = `M0 0 L${area.width} 0 L${area.width} ${area.height} L0 ${area.height} Z`
    this.fragments.push(...shifted(painted(data, area, fill, stroke, ''), area.x, area.y))
  }

  /** Draws a straight line, in `fallback` where properties name no colour. */
  rule(x1: number, y1: number, x2: number, y2: number, properties: Properties, fallback: string): void {
    if (properties['draw:stroke'] === 'none') return
    const stroke = this.paints.stroke(properties, true)!
    const color = properties['svg:stroke-color'] ? stroke.color : fallback
    this.fragments.push({
      kind: 'path',
      data: `M${x1} ${y1} L${x2} ${y2}`,
      fill: '',
      fillOpacity: 1,
      stroke: color,
      strokeWidth: stroke.width || 0.5,
      strokeOpacity: stroke.opacity,
      dash: stroke.dash,
      x: 0,
      y: 0,
      width: 0,
      height: 0,
    })
  }

  /** Sets text without a limit to its lines, or within one. */
  set(blocks: readonly Block[], most = endless, centred = false): SetBlock {
    let width = 0
    let height = 0
    const stacked = blocks.map(block => {
      const free = this.boxes.stack([block], 'chart', endless)
      const own = Math.min(longestLine(free.fragments), most)
      const set =
        own < most
          ? { ...this.boxes.stack([block], 'chart', own + 0.01), own }
          : { ...this.boxes.stack([block], 'chart', most), own: most }
      width = Math.max(width, set.own)
      return set
    })
    const fragments = stacked.flatMap(each => {
      const at = height
      height += each.height
      return [...shifted(each.fragments, centred ? (width - each.own) / 2 : 0, at)]
    })
    return { width, height, fragments }
  }

  /** A number or other text that the chart shows and the file does not hold: it takes the look of its owner. */
  label(text: string, styleNames: readonly (string | null)[]): SetBlock {
    const names = styleNames.filter(name => name !== null)
    return this.set([shownByChart(this.chart, text, names)])
  }

  /** Puts text turned about its centre. */
  turnedBy(set: SetBlock, degrees: number, centre: { readonly x: number; readonly y: number }): void {
    const angle = (-degrees * Math.PI) / 180
    const turn: Matrix = [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), centre.x, centre.y]
    this.fragments.push(...turned(set.fragments, after(turn, translation(-set.width / 2, -set.height / 2))))
  }
}
