import { crc32, deflateSync } from 'node:zlib'
import { encode } from 'fast-png'
import { encode as encodeJpeg } from 'jpeg-js'
import { PNG } from 'pngjs'
import { describe, expect, it } from 'vitest'
import { rasterOf } from '../../../core/typeset/raster'
import { openOdt } from '../../support/fixtures'

/** A document that holds these bytes as a picture. */
const holding = (content: Uint8Array, path = 'Pictures/a.png') =>
  openOdt({ body: '<text:p>Ferry</text:p>', parts: [{ path, type: 'image/png', content }] })
const raster = (content: Uint8Array) => rasterOf(holding(content), './Pictures/a.png')
/** The pixels of a picture as four numbers each. */
const pixels = (content: Uint8Array) => {
  const { data } = raster(content)!
  return Array.from({ length: data.length / 4 }, (_, at) => [...data.subarray(at * 4, at * 4 + 4)])
}

describe('the pixels of a picture', () => {
  const width = 2
  const height = 1
  it('are those of a PNG, whatever its colours are stored as', () => {
    const of = (channels: number, data: number[], depth: 8 | 16 = 8) =>
      pixels(
        encode({ width, height, channels, depth, data: depth === 8 ? Uint8Array.from(data) : Uint16Array.from(data) }),
      )
    expect(of(3, [255, 0, 0, 0, 128, 0])).toEqual([
      [255, 0, 0, 255],
      [0, 128, 0, 255],
    ])
    expect(of(4, [255, 0, 0, 10, 0, 128, 0, 255])).toEqual([
      [255, 0, 0, 10],
      [0, 128, 0, 255],
    ])
    expect(of(1, [7, 250])).toEqual([
      [7, 7, 7, 255],
      [250, 250, 250, 255],
    ])
    expect(of(2, [7, 3, 250, 200])).toEqual([
      [7, 7, 7, 3],
      [250, 250, 250, 200],
    ])
    expect(of(3, [65535, 0, 256, 0, 32768, 0], 16)).toEqual([
      [255, 0, 1, 255],
      [0, 128, 0, 255],
    ])
  })

  it('are those of packed greys, palettes and one clear colour', () => {
    // Chunks by hand: four pixels of one bit, white and black; then of a palette, one half clear; then a clear red.
    const bits = (color: number, depth: number, rows: number[], chunks: readonly [string, number[]][] = []) => {
      const whole = encode({ width: 4, height, channels: 1, depth: 8, data: new Uint8Array(4) })
      return withChunks(whole, color, depth, rows, chunks)
    }
    const [white, black] = [
      [255, 255, 255, 255],
      [0, 0, 0, 255],
    ]
    expect(pixels(bits(0, 1, [0, 0b10010000]))).toEqual([white, black, black, white])
    const palette: [string, number[]] = ['PLTE', [1, 2, 3, 200, 100, 50]]
    const [half, sand] = [
      [1, 2, 3, 128],
      [200, 100, 50, 255],
    ]
    expect(pixels(bits(3, 1, [0, 0b01100000], [palette, ['tRNS', [128]]]))).toEqual([half, sand, sand, half])
    const row = [0, 255, 0, 0, 0, 255, 0, 0, 0, 0, 255, 255, 255]
    expect(pixels(bits(2, 8, row, [['tRNS', [0, 255, 0, 0, 0, 0]]]))).toEqual([
      [255, 0, 0, 0],
      [0, 255, 0, 255],
      black,
      white,
    ])
  })

  it('are those of a JPEG, as near as it keeps them', () => {
    const data = new Uint8Array(16 * 16 * 4).fill(255)
    for (let at = 0; at < data.length; at += 4) data.set([30, 90, 160], at)
    const found = pixels(encodeJpeg({ width: 16, height: 16, data }, 95).data)
    expect(found).toHaveLength(256)
    for (const [red, green, blue, opacity] of found) {
      expect(Math.abs(red! - 30) + Math.abs(green! - 90) + Math.abs(blue! - 160)).toBeLessThan(12)
      expect(opacity).toBe(255)
    }
  })

  it('are made few by their mean light: black and white lines come out lighter than the mean of their values', () => {
    const large = new PNG({ width: 1024, height: 2 })
    large.data.fill(255)
    for (let at = 0; at < large.data.length; at += 8) large.data.set([0, 0, 0], at)
    const found = raster(PNG.sync.write(large))!
    expect([found.width, found.height]).toEqual([512, 1])
    expect([...found.data.subarray(0, 4)]).toEqual([188, 188, 188, 255])
  })

  it('are none where there is no picture, where it is broken, of another kind, or too large', () => {
    const fine = encode({ width, height, channels: 1, data: Uint8Array.from([1, 2]) })
    const document = holding(fine)
    expect(rasterOf(document, 'Pictures/b.png')).toBeNull()
    expect(rasterOf(document, 'Pictures/a.png')).toBe(rasterOf(document, './Pictures/a.png'))
    expect(raster(fine.slice(0, 40))).toBeNull()
    expect(raster(new TextEncoder().encode('GIF89a\u0001\u0000\u0001\u0000'))).toBeNull()
    const claims = Uint8Array.from(fine)
    new DataView(claims.buffer).setUint32(16, 60_000)
    new DataView(claims.buffer).setUint32(20, 60_000)
    expect(raster(claims)).toBeNull()
  })
})

/** A PNG whose header says another colour type and depth, with these rows and further chunks before them. */
function withChunks(
  whole: Uint8Array,
  color: number,
  depth: number,
  rows: number[],
  chunks: readonly [string, number[]][],
): Uint8Array {
  const header = [...whole.subarray(16, 24), depth, color, 0, 0, 0]
  const chunk = (name: string, data: readonly number[]) => {
    const body = Buffer.concat([Buffer.from(name), Buffer.from(data)])
    const out = Buffer.alloc(body.length + 8)
    out.writeUInt32BE(data.length, 0)
    body.copy(out, 4)
    out.writeUInt32BE(crc32(body), body.length + 4)
    return out
  }
  const parts = [chunk('IHDR', header), ...chunks.map(([name, data]) => chunk(name, data))]
  return Buffer.concat([
    whole.subarray(0, 8),
    ...parts,
    chunk('IDAT', [...deflateSync(Buffer.from(rows))]),
    chunk('IEND', []),
  ])
}
