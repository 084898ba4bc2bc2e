import type { Matrix } from '~~/core/typeset/matrix'

/** What of a page is drawn: device pixels per point, and the point at the canvas's top left. */
export interface Glass {
  readonly scale: number
  readonly x: number
  readonly y: number
}

/** A canvas that knows its way from the page's points to its pixels. */
export class Pen {
  constructor(
    readonly context: CanvasRenderingContext2D,
    readonly glass: Glass,
  ) {}

  /** Draws in points of the page, or of what stands turned on it. */
  place(matrix?: Matrix): CanvasRenderingContext2D {
    const { scale, x, y } = this.glass
    this.context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale)
    if (matrix) this.context.transform(...(matrix as [number, number, number, number, number, number]))
    return this.context
  }

  /** Draws in the units of an outline, at a point. */
  glyph(x: number, y: number, across: number, up: number, matrix?: Matrix): void {
    const { scale } = this.glass
    if (matrix) this.place(matrix).transform(across, 0, 0, -up, x, y)
    else
      this.context.setTransform(
        across * scale,
        0,
        0,
        -up * scale,
        (x - this.glass.x) * scale,
        (y - this.glass.y) * scale,
      )
  }
}
