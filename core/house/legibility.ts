import type { Medium, Room } from './house'

/** How large text looks from where it is read. */
export interface Legibility {
  /** What its x-height spans, in degrees. */
  readonly degrees: number
  readonly enough: boolean
  /** The size that would do, in points, to a half. */
  readonly would: number
  /** From where: “at 40 cm”, “from the last row, 9 m from a screen 1.6 m high”. */
  readonly from: string
}

/**
 * The x-height has to span this angle for fluent reading: the critical print size of 0.2 degrees (Legge and Bigelow 2011,
 * “Does print size matter for reading?”, Journal of Vision 11(5):8), and a tenth more, since that is a mean of readers.
 */
export const fluent = 0.22

/** A room where none is said: a screen of 1.5 m, the last row six heights away. */
export const usualRoom: Room = { screenHeight: 1.5, lastRow: 9 }

/** The height of a slide in points where none is known: 15.75 cm, as wide slides have it. */
const slideHeight = 446.5
/** Text and sheets are held at 40 cm. Points. */
const reach = (40 / 2.54) * 72

/**
 * The visual angle of the x-height of some text.
 * @param size in points
 * @param xHeight in thousandths of an em
 * @param height of the page or slide, in points
 */
export function legibility(
  size: number,
  xHeight: number,
  medium: Medium,
  room: Room = usualRoom,
  height = slideHeight,
): Legibility {
  const tall = (size * xHeight) / 1000
  // As a share of the distance it is read from.
  const share = medium === 'deck' ? (tall / height) * (room.screenHeight / room.lastRow) : tall / reach
  const degrees = (2 * Math.atan(share / 2) * 180) / Math.PI
  const needed = 2 * Math.tan((fluent * Math.PI) / 360)
  return {
    degrees,
    enough: degrees >= fluent - 1e-9,
    would: share > 0 ? Math.ceil(((size * needed) / share) * 2 - 1e-9) / 2 : size,
    from:
      medium === 'deck' ? `from the last row, ${room.lastRow} m from a screen ${room.screenHeight} m high` : 'at 40 cm',
  }
}
