import { readFileSync } from 'node:fs'
import opentype from 'opentype.js'
import { describe, expect, it } from 'vitest'
import { frequencies } from '../../../core/font/measure/texture'
import { measureType } from '../../../core/font/measure/type-measures'
import { inkAlong, edgesOf, polygonsOf } from '../../../core/font/measure/outline'
import { lettersOf } from '../../../core/font/measure/letters'
import { thicknesses } from '../../../core/font/measure/thickness'
import { shippedFaces } from '../../../server/library/shipped'
import { inkBox, rasterOf, runsAt, thicknessAtEdges } from '../../support/raster'
import { sampleOf } from '../../support/seeded'

const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!

/** A face made of drawings: a path for each letter, all of one advance. */
const drawn = (paths: Readonly<Record<string, string>>, advance = 600) => ({
  unitsPerEm: 1000,
  outline: (character: string) => paths[character] ?? '',
  advance: () => advance,
})
const box = (left: number, bottom: number, right: number, top: number) =>
  `M${left},${bottom}L${right},${bottom}L${right},${top}L${left},${top}Z`
const hole = (left: number, bottom: number, right: number, top: number) =>
  `M${left},${bottom}L${left},${top}L${right},${top}L${right},${bottom}Z`

describe('outlines', () => {
  it('are cut by lines into stretches of ink, and contours that overlap are one', () => {
    const edges = edgesOf(polygonsOf(box(0, 0, 100, 700) + box(50, 300, 400, 400) + box(350, 0, 450, 700)))
    expect(inkAlong(edges, 'x', 350)).toEqual([{ from: 0, to: 450 }])
    expect(inkAlong(edges, 'x', 100)).toEqual([
      { from: 0, to: 100 },
      { from: 350, to: 450 },
    ])
    expect(inkAlong(edges, 'y', 200)).toEqual([{ from: 300, to: 400 }])
  })

  it('have a thickness straight inward, holes and overlaps known', () => {
    const letter = lettersOf(drawn({ o: box(0, 0, 400, 500) + hole(100, 60, 300, 440) }))('o')!
    const found = thicknesses(letter)
    expect(found.length).toBeGreaterThan(60)
    // The walls are 100 thick at the sides and 60 above and below; near corners a line runs along a wall.
    expect(found.filter(each => Math.abs(each.thick - 100) < 0.01).length).toBeGreaterThan(20)
    expect(found.filter(each => Math.abs(each.thick - 60) < 0.01).length).toBeGreaterThan(15)
    const crossed = lettersOf(drawn({ t: box(0, 200, 400, 300) + box(150, 0, 250, 500) }))('t')!
    expect(crossed.overlaps).toBe(true)
    expect(
      thicknesses(crossed).every(each => each.at.x <= 151 || each.at.x >= 249 || each.at.y <= 1 || each.at.y >= 499),
    ).toBe(true)
  })

  it('that no letter has are not measured, and take no time', () => {
    const wild = Array.from({ length: 9000 }, (_, index) => `L${(index * 7919) % 900},${(index * 104729) % 900}`).join(
      '',
    )
    const measures = measureType(drawn({ n: `M0,0${wild}Z`, o: `M0,0L90000,0L0,90000Z` }), {
      xHeight: 500,
      averageWidth: 500,
    })
    expect(measures).toMatchObject({ stem: 0, hairline: 0, contrast: null, stress: null, widthN: null, widthO: null })
  })
})

describe('measures of drawn letters', () => {
  const serifed = (serif: number) => ({
    H:
      box(100, 0, 180, 700) +
      box(400, 0, 480, 700) +
      box(150, 320, 430, 360) +
      box(40, 0, 240, serif) +
      box(340, 0, 540, serif),
    T: box(260, 0, 340, 700) + box(40, 660, 560, 700) + box(200, 0, 400, serif),
    l: box(100, 0, 180, 750) + box(40, 0, 240, serif),
  })
  it('tell feet from none, and how high serifs are', () => {
    const bare = measureType(drawn({ l: box(100, 0, 180, 750), H: serifed(0.1).H, T: serifed(0.1).T }), {
      xHeight: 500,
      averageWidth: 500,
    })
    expect(bare.stem).toBe(80)
    expect(bare.foot).toBe(1)
    const slabs = measureType(drawn(serifed(60)), { xHeight: 500, averageWidth: 500 })
    expect(slabs.foot).toBeCloseTo(2.5, 2)
    expect(slabs.footBothSides).toBeCloseTo(0.75, 2)
    expect(slabs.serif).toBe(60)
    expect(slabs.bracket).toBe(0)
  })

  it('find the axis of a stroke that was drawn at an angle', () => {
    // An o between a circle and an ellipse turned by 20 degrees: thin where the ellipse comes near the circle.
    const ring = (wide: number, high: number, turned: number, back: boolean) => {
      const points = Array.from({ length: 72 }, (_, index) => {
        const angle = ((back ? -index : index) * Math.PI) / 36
        const [x, y] = [wide * Math.cos(angle), high * Math.sin(angle)]
        const turn = (turned * Math.PI) / 180
        return `${300 + x * Math.cos(turn) - y * Math.sin(turn)},${250 + x * Math.sin(turn) + y * Math.cos(turn)}`
      })
      return `M${points.join('L')}Z`
    }
    for (const turned of [0, 12, 20, 30]) {
      const o = ring(250, 250, 0, false) + ring(160, 225, turned, true)
      const { stress } = measureType(drawn({ o }), { xHeight: 500, averageWidth: 500 })
      expect(Math.abs(stress! - turned), `turned ${turned}`).toBeLessThan(3)
    }
    const even = ring(250, 250, 0, false) + ring(170, 170, 0, true)
    expect(measureType(drawn({ o: even }), { xHeight: 500, averageWidth: 500 }).stress).toBeNull()
  })
})

describe('measures of faces', () => {
  const latin = shippedFaces().filter(
    ({ face }) => (face.coverage.Latin ?? 0) > 100 && face.measures.smallCapitals < 0.5,
  )
  const sample = sampleOf(latin, 20, 20_261)

  it('agree with another reader and with counted pixels, for 20 faces by chance', { timeout: 120_000 }, () => {
    for (const { face, path } of sample) {
      const file = readFileSync(path)
      const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength))
      const { measures } = face
      const told = (name: string, mine: number | null, other: number, within = 3) =>
        expect(Math.abs(mine! - other), `${face.fullName}: ${name} ${mine}, counted ${other}`).toBeLessThanOrEqual(
          within,
        )
      const boxes = new Map([...'xHdpMno'].map(each => [each, inkBox(rasterOf(font, each))]))
      told('x-height', measures.xHeight, boxes.get('x')!.top)
      told('cap height', measures.capHeight, boxes.get('H')!.top)
      told('ascender', measures.ascender, boxes.get('d')!.top)
      told('descender', measures.descender, -boxes.get('p')!.bottom)
      for (const [name, mine] of [
        ['M', measures.widthM],
        ['n', measures.widthN],
        ['o', measures.widthO],
      ] as const)
        told(`width of ${name}`, mine, boxes.get(name)!.right - boxes.get(name)!.left)
      const widths = Object.entries(frequencies).map(([letter, share]) => {
        const width = (font.charToGlyph(letter).advanceWidth! * 1000) / font.unitsPerEm
        return [width * share, share] as const
      })
      told(
        'average width',
        measures.averageWidth,
        widths.reduce((sum, [width]) => sum + width, 0) / widths.reduce((sum, [, share]) => sum + share, 0),
      )
      const thin = [...'oecs'].map(each => {
        const all = thicknessAtEdges(rasterOf(font, each)).sort((a, b) => a - b)
        return all[Math.floor(all.length * 0.15)]!
      })
      // Halfway between the two in the middle, as medians of four are.
      const sorted = thin.sort((a, b) => a - b)
      told('hairline', measures.hairline, (sorted[1]! + sorted[2]!) / 2)
      if (Math.abs(measures.slant) < 0.5) {
        const h = rasterOf(font, 'h')
        const n = rasterOf(font, 'n')
        const l = rasterOf(font, 'l')
        const up = (raster: typeof h, part: number) => {
          const { top, bottom } = inkBox(raster)
          return bottom + (top - bottom) * part
        }
        const pair = (raster: typeof h, low: number, high: number, place: 0 | -1) =>
          (runsAt(raster, up(raster, low)).at(place)! + runsAt(raster, up(raster, high)).at(place)!) / 2
        const stems = [
          pair(l, 0.3, 0.7, 0),
          pair(h, 0.2, 0.8, 0),
          pair(n, 0.25, 0.55, 0),
          pair(n, 0.25, 0.5, -1),
          pair(h, 0.15, 0.4, -1),
        ]
        told('stem', measures.stem, middle(stems))
      }
    }
  })

  it('never come to what is no number', () => {
    for (const { face } of shippedFaces())
      for (const [name, value] of Object.entries(face.measures))
        expect(typeof value !== 'number' || Number.isFinite(value), `${face.fullName} ${name} ${String(value)}`).toBe(
          true,
        )
  })

  it('see what everybody sees', () => {
    const of = (family: string) =>
      shippedFaces().find(({ face }) => face.family === family && face.style === 'Regular')!.face.measures
    expect(of('Inter').storeysA).toBe(2)
    expect(of('Mulish').storeysA).toBe(1)
    expect(of('EB Garamond').storeysG).toBe(2)
    expect(of('Fira Mono').widthSpread).toBe(0)
    expect(of('Sorts Mill Goudy').figures).toEqual({ style: 'old-style', tabular: false })
    expect(of('Liberation Serif').figures).toEqual({ style: 'lining', tabular: true })
    expect(of('Dancing Script').joined).toBeGreaterThan(0.8)
    expect(of('Lora').joined).toBeLessThan(0.3)
    expect(of('Special Elite').roughness).toBeGreaterThan(3)
    expect(of('Inter').roughness).toBeLessThan(0.5)
    expect(of('Bodoni Moda').contrast).toBeGreaterThan(4)
    expect(of('Montserrat').contrast).toBeLessThan(1.4)
    expect(of('Bungee Inline').extraContours).toBeGreaterThanOrEqual(1)
  })
})
