import type { PDFPage } from '@cantoo/pdf-lib'
import { inverted, mapped, type Matrix } from '../../typeset/matrix'

/** A place on a page as it is looked at, in points from its top left. */
export interface PagePoint {
  readonly x: number
  readonly y: number
}

/** A part of a page as it is looked at, in points from its top left. */
export interface PageBox extends PagePoint {
  readonly width: number
  readonly height: number
}

/** A page as it is looked at: cut to its crop box and turned as it says (ISO 32000-2, 7.7.3.3). Lengths in points. */
export interface PageLook {
  readonly width: number
  readonly height: number
  /** From what is looked at (x to the right, y downwards) to the page's own coordinates. */
  readonly toPage: Matrix
  /** The other way. */
  readonly toLook: Matrix
}

/** How a page is looked at. */
export function lookOf(page: PDFPage): PageLook {
  const { x, y, width, height } = page.getCropBox()
  const turn = ((page.getRotation().angle % 360) + 360) % 360
  const upright: Matrix = [1, 0, 0, -1, x, y + height]
  const turned: Readonly<Record<number, Matrix>> = {
    90: [0, 1, 1, 0, x, y],
    180: [-1, 0, 0, 1, x + width, y],
    270: [0, -1, -1, 0, x + width, y + height],
  }
  const toPage = turned[turn] ?? upright
  const lying = turn === 90 || turn === 270
  return {
    width: lying ? height : width,
    height: lying ? width : height,
    toPage,
    // Turns and shifts always have a way back.
    toLook: inverted(toPage)!,
  }
}

/** A point of a page's own coordinates, as it is looked at. */
export const looked = ({ toLook }: PageLook, { x, y }: PagePoint): PagePoint => mapped(toLook, x, y)
