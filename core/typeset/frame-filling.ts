import type { Block, Frame, Story } from '../document/story-model'
import { points } from '../document/lengths'
import type { BoxSetter } from './box-setter'
import { openColumn, type Column } from './columns'
import { Flow } from './flow'
import { flowStart, itemsOf, listHost } from './flow-items'
import type { Fragment, OversetFrame } from './fragments'
import { frameColumns, rounding, tooTall } from './frame-columns'
import { borderWidths, edges, lengthOf } from './geometry'

/** What a frame of fixed height shows, and what of its text has no room. */
export interface Filled {
  readonly fragments: readonly Fragment[]
  readonly over: OversetFrame | null
}

/** What filling asks of frames beside their text. */
interface FrameBoxes extends BoxSetter {
  attribute(frame: Frame, name: string): string | undefined
  widthOf(frame: Frame, columnWidth: number): number
}

/** Fills frames of fixed height, and chains of them, with text. */
export class FrameFilling {
  private readonly chains = new Map<Frame, readonly Filled[]>()

  constructor(private readonly boxes: FrameBoxes) {}

  /** A chain is filled once, from its first frame; each frame then shows its part. */
  chained(chain: readonly Frame[], role: Story['role'], columnWidth: number): readonly Filled[] {
    const head = chain[0]!
    let filled = this.chains.get(head)
    if (!filled) {
      filled = this.fill(
        chain.at(-1)!,
        chain.flatMap(each => each.blocks),
        role,
        chain.map(each => this.columnsIn(each, columnWidth)),
      )
      this.chains.set(head, filled)
    }
    return filled
  }

  /** The columns of a chained frame, within its lines and padding. */
  private columnsIn(frame: Frame, columnWidth: number): readonly Column[] {
    const { styles } = this.boxes
    const properties = styles.graphic(frame)
    const border = borderWidths(properties)
    const inset = edges(properties, 'fo:padding')
    const height = points(this.boxes.attribute(frame, 'svg:height')) ?? lengthOf(properties['fo:min-height'], 0) ?? 0
    const across = inset.left + inset.right + border.left + border.right
    return frameColumns(
      {
        x: inset.left + border.left,
        y: inset.top + border.top,
        width: Math.max(this.boxes.widthOf(frame, columnWidth) - across, 10),
        height: height - inset.top - inset.bottom - border.top - border.bottom,
      },
      styles.columnsOf(frame.part, 'graphic', frame.graphicStyle),
    )
  }

  /** Fills frames of fixed height with blocks; what has no room is counted and belongs to the last. */
  fill(
    last: Frame,
    blocks: readonly Block[],
    role: Story['role'],
    frames: readonly (readonly Column[])[],
  ): readonly Filled[] {
    const { boxes } = this
    const columns = frames.flat()
    const items = itemsOf(blocks, name => boxes.styles.columnsOf(last.part, 'section', name))
    const flow = new Flow(boxes, role, items, columns[0]!, listHost(columns))
    const done = flow.run(flowStart)
    let over: OversetFrame | null = null
    const grounds = frames.map(each => each[0]!.ground)
    // In an empty frame a first line is set that may be too high: it is over, too.
    const tall = tooTall(grounds.at(-1)!, frames.at(-1)!.at(-1)!.bottom)
    if (!done || tall.lines > 0) {
      let lines = tall.lines
      let characters = tall.characters
      if (!done) {
        const rest = openColumn(columns.at(-1)!.width)
        new Flow(boxes, role, items, rest, { next: () => null }).run(flow.position)
        for (const fragment of rest.ground.fragments) {
          if (fragment.kind !== 'lines') continue
          lines += fragment.to - fragment.from
          for (let at = fragment.from; at < fragment.to; at++)
            characters += fragment.layout.lines[at]!.end - fragment.layout.lines[at]!.start
        }
      }
      // Empty paragraphs that do not fit show nobody anything.
      if (characters > 0) over = { part: last.part, node: last.node, name: last.name, lines, characters }
    }
    const column = columns.at(-1)!
    boxes.noteFill({
      part: last.part,
      node: last.node,
      name: last.name,
      room: done ? Math.max(column.bottom - rounding - flow.lowest, 0) : 0,
      over,
      shrunk: 1,
    })
    return grounds.map((ground, index) => ({
      fragments:
        index === grounds.length - 1 && tall.lines > 0
          ? ground.fragments.filter(fragment => fragment.kind !== 'lines' || !tall.fragments.has(fragment))
          : ground.fragments,
      over: index === grounds.length - 1 ? over : null,
    }))
  }
}
