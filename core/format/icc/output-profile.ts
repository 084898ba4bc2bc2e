import type { Inks, Lab, PrintModel } from './characterisation'
import { inksFor } from './separation'

/** The white of the profile connection space (ICC.1:2001-04, A.1). */
const d50 = [0.9642, 1, 0.8249] as const
/** Points along each ink, and along each axis of CIELAB. */
const inkPoints = 11
const labPoints = 17
/** A colour that cannot be printed nearer than this, in CIE 1976 units, is out of gamut. */
const reached = 3

/**
 * An ICC profile of a printing condition, built from what was measured of it: an output profile of version 2 from CMYK to
 * CIELAB (ICC.1:2001-04, 6.3.3), relative to its paper, the same tables for all intents.
 */
export function outputProfile(model: PrintModel, description: string): Uint8Array {
  const white = xyzOf(model.white)
  const toPrint = lut(4, 3, inkPoints, inksToLab(model, white))
  const { inks, gamut } = labToInks(model, white)
  const fromLab = lut(3, 4, labPoints, inks)
  return profileOf([
    ['desc', descriptionTag(description)],
    ['cprt', textTag('Made from published measurements. No copyright is claimed.')],
    ['wtpt', xyzTag(white)],
    ['A2B0', toPrint],
    ['A2B1', toPrint],
    ['A2B2', toPrint],
    ['B2A0', fromLab],
    ['B2A1', fromLab],
    ['B2A2', fromLab],
    ['gamt', lut(3, 1, labPoints, gamut)],
  ])
}

/** What every mixture looks like beside its paper, as entries of a table: the last ink runs fastest. */
function inksToLab(model: PrintModel, white: readonly number[]): number[] {
  const entries: number[] = []
  const last = inkPoints - 1
  for (let index = 0; index < inkPoints ** 4; index++) {
    const inks = [3, 2, 1, 0].map(power => (Math.floor(index / inkPoints ** power) % inkPoints) / last)
    entries.push(...encoded(relative(model.lab(inks as unknown as Inks), white)))
  }
  return entries
}

/** The inks for every colour of a grid over CIELAB, and whether they reach it. */
function labToInks(model: PrintModel, white: readonly number[]): { inks: number[]; gamut: number[] } {
  const inks: number[] = []
  const gamut: number[] = []
  let before: Inks | null = null
  for (let index = 0; index < labPoints ** 3; index++) {
    const at = [2, 1, 0].map(power => ((Math.floor(index / labPoints ** power) % labPoints) * 65535) / (labPoints - 1))
    const lab: Lab = [Math.min(at[0]! / 652.8, 100), at[1]! / 256 - 128, at[2]! / 256 - 128]
    const found = inksFor(model, absolute(lab, white), before)
    before = found.inks
    inks.push(...found.inks.map(ink => Math.round(ink * 65535)))
    gamut.push(found.distance <= reached ? 0 : 65535)
  }
  return { inks, gamut }
}

const cube = (t: number) => (t > 6 / 29 ? t ** 3 : (t - 4 / 29) * 3 * (6 / 29) ** 2)
const root = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29)

/** CIE 15:2004, 8.2.1, under D50. */
function xyzOf([l, a, b]: Lab): number[] {
  const y = (l + 16) / 116
  return [cube(y + a / 500) * d50[0], cube(y), cube(y - b / 200) * d50[2]]
}

function labOf([x, y, z]: readonly number[]): Lab {
  const [fx, fy, fz] = [root(x! / d50[0]), root(y!), root(z! / d50[2])]
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)]
}

/** As it looks beside its paper, and back (ICC.1:2001-04, A.3). */
const relative = (lab: Lab, white: readonly number[]): Lab =>
  labOf(xyzOf(lab).map((value, axis) => (value * d50[axis]!) / white[axis]!))
const absolute = (lab: Lab, white: readonly number[]): Lab =>
  labOf(xyzOf(lab).map((value, axis) => (value * white[axis]!) / d50[axis]!))

/** CIELAB in sixteen bits (ICC.1:2001-04, A.4, table 72). */
const encoded = ([l, a, b]: Lab): number[] =>
  [l * 652.8, (a + 128) * 256, (b + 128) * 256].map(value => Math.min(Math.max(Math.round(value), 0), 65535))

/** Writes numbers one after the other, the highest byte first. */
class Bytes {
  private readonly list: number[] = []

  u8(...values: readonly number[]): this {
    for (const value of values) this.list.push(value & 255)
    return this
  }
  u16(...values: readonly number[]): this {
    for (const value of values) this.list.push((value >> 8) & 255, value & 255)
    return this
  }
  u32(...values: readonly number[]): this {
    for (const value of values) this.u16((value >>> 16) & 65535, value & 65535)
    return this
  }
  /** Sixteen bits before and behind the point. */
  fixed(...values: readonly number[]): this {
    return this.u32(...values.map(value => Math.round(value * 65536) >>> 0))
  }
  text(text: string): this {
    return this.u8(...[...text].map(character => character.charCodeAt(0)))
  }
  zeros(count: number): this {
    return this.u8(...Array.from({ length: count }, () => 0))
  }
  done(): Uint8Array {
    return Uint8Array.from(this.list)
  }
}

/** A table of sixteen bits with straight curves before and behind it (ICC.1:2001-04, 6.5.7). */
function lut(inputs: number, outputs: number, points: number, entries: readonly number[]): Uint8Array {
  const out = new Bytes()
  out.text('mft2').u32(0).u8(inputs, outputs, points, 0).fixed(1, 0, 0, 0, 1, 0, 0, 0, 1).u16(2, 2)
  for (let curve = 0; curve < inputs; curve++) out.u16(0, 65535)
  for (const entry of entries) out.u16(entry)
  for (let curve = 0; curve < outputs; curve++) out.u16(0, 65535)
  return out.done()
}

const xyzTag = (xyz: readonly number[]) =>
  new Bytes()
    .text('XYZ ')
    .u32(0)
    .fixed(...xyz)
    .done()
const textTag = (text: string) => new Bytes().text('text').u32(0).text(`${text}\0`).done()
/** In ASCII alone: the other two forms are there and empty (ICC.1:2001-04, 6.5.17). */
const descriptionTag = (text: string) =>
  new Bytes()
    .text('desc')
    .u32(0, text.length + 1)
    .text(`${text}\0`)
    .zeros(4 + 4 + 2 + 1 + 67)
    .done()

/** Header, table of tags, tags, each from a multiple of four; what is the same is kept once (ICC.1:2001-04, 6.1 to 6.3). */
function profileOf(tags: readonly (readonly [string, Uint8Array])[]): Uint8Array {
  const places = new Map<Uint8Array, number>()
  let size = 128 + 4 + tags.length * 12
  for (const [, data] of tags) {
    if (places.has(data)) continue
    places.set(data, size)
    size += Math.ceil(data.length / 4) * 4
  }
  const head = new Bytes()
  head.u32(size, 0, 0x02400000).text('prtrCMYKLab ').u16(2026, 1, 1, 0, 0, 0).text('acsp')
  head
    .u32(0, 0, 0, 0, 0, 0, 0)
    .fixed(...d50)
    .zeros(128 - 80)
  head.u32(tags.length)
  for (const [name, data] of tags) head.text(name).u32(places.get(data)!, data.length)
  const out = new Uint8Array(size)
  out.set(head.done())
  for (const [data, at] of places) out.set(data, at)
  return out
}
