import { describe, expect, it } from 'vitest'
import { saltmereLine, winterService } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { namedColors, type NamedColor, type Painted } from '../../../core/document/colours'
import { paintsOf, proposePaints, usedColors } from '../../../core/house/house-paints'
import { lchOf } from '../../../core/colour/oklch'
import { houseSchema } from '../../../core/house/house'
import { session } from '../../support/fixtures'

const named = (color: string, on: Painted): NamedColor => ({ part: 'content.xml', node: 1, attribute: 'a', color, on })
const used = (...colors: string[]) => usedColors(colors.map(color => named(color, 'fill')))
const palette = (...colors: readonly (readonly [string, string, string])[]) =>
  houseSchema.parse({
    name: 'Trial',
    palette: colors.map(([title, does, color]) => ({ id: title.toLowerCase(), title, does, color })),
  })
const becomes = (...of: Parameters<typeof proposePaints>) => proposePaints(...of).map(each => each.to)

describe('colours in use', () => {
  it('are counted by what they are on, the commonest first; what text alone has is left to its roles', () => {
    expect(
      usedColors([
        named('#111111', 'line'),
        named('#222222', 'fill'),
        named('#222222', 'ground'),
        named('#222222', 'text'),
        named('#333333', 'text'),
      ]),
    ).toEqual([
      {
        color: '#222222',
        on: [
          { on: 'fill', places: 1 },
          { on: 'ground', places: 1 },
        ],
        places: 2,
      },
      { color: '#111111', on: [{ on: 'line', places: 1 }], places: 1 },
    ])
  })
})

describe('what colours become in a house', () => {
  const house = palette(['Ink', 'text', '#202020'], ['Sea', 'accent', '#1f6f6b'], ['Rust', 'warning', '#b4361e'])

  it('the nearest of its palette, greys among greys; its own, white, black and what is far from all stay', () => {
    expect(becomes(used('#1f6f6b'), house, null)).toEqual([null])
    expect(becomes(used('#2a7a70'), house, null)).toEqual(['#1f6f6b'])
    expect(becomes(used('#a03020'), house, null)).toEqual(['#b4361e'])
    expect(becomes(used('#303030'), house, null)).toEqual(['#202020'])
    expect(becomes(used('#ffffff'), house, null)).toEqual([null])
    expect(becomes(used('#000000'), house, null)).toEqual([null])
    // A light yellow is near to nothing here; a light grey is near to no grey.
    expect(becomes(used('#fff6c0'), house, null)).toEqual([null])
    expect(becomes(used('#e8e8e8'), house, null)).toEqual([null])
  })

  it('what a colour of the house before does, the one of its name does here, else the one at its place', () => {
    const before = palette(['Sea', 'accent', '#005f99'], ['Moss', 'series', '#556b2f'], ['Clay', 'series', '#aa6644'])
    const next = palette(
      ['Sea', 'accent', '#7a2048'],
      ['First', 'series', '#101060'],
      ['Second', 'series', '#d0a000'],
      ['Near', 'quiet', '#005f9a'],
    )
    expect(becomes(used('#005f99'), next, before)).toEqual(['#7a2048'])
    expect(becomes(used('#556b2f'), next, before)).toEqual(['#101060'])
    expect(becomes(used('#aa6644'), next, before)).toEqual(['#d0a000'])
    // Without the house before it is the nearest alone.
    expect(becomes(used('#005f99'), next, null)).toEqual(['#005f9a'])
    // A tint goes with its colour: as light as before, in the hue that took its place.
    const [tint] = becomes(used('#9cc8e6'), next, before)
    const [was, is, of] = ['#9cc8e6', tint!, '#7a2048'].map(each => lchOf(each)!)
    expect(is!.lightness).toBeCloseTo(was!.lightness, 2)
    expect(Math.abs(is!.hue - of!.hue)).toBeLessThan(3)
    expect(becomes(used('#9cc8e6'), next, null)).toEqual([null])
  })

  it('as many at a time as a wish takes, and none where it was said that a colour stays', () => {
    const many = Array.from({ length: 250 }, (_, at) => `#b4${(0x300 + at).toString(16).padStart(4, '0')}`)
    expect(paintsOf(proposePaints(used(...many), house, null), () => '#202020')).toHaveLength(200)
    expect(paintsOf(proposePaints(used('#2a7a70'), house, null), () => '')).toEqual([])
    expect(paintsOf(proposePaints(used('#2a7a70'), house, null))).toEqual([
      { from: '#2a7a70', to: '#1f6f6b', on: ['fill'] },
    ])
  })

  it('never one for two series of charts', () => {
    const series = (...colors: string[]) => usedColors(colors.map(color => named(color, 'series')))
    const found = proposePaints(series('#1f6f6b', '#2a7a70', '#a03020'), house, null)
    expect(found.map(each => [each.color, each.to])).toEqual([
      ['#1f6f6b', null],
      ['#2a7a70', null],
      ['#a03020', '#b4361e'],
    ])
    expect(found[1]!.why).toBe('two series would look alike')
    expect(becomes(series('#2a7a70', '#2b7b71'), house, null)).toEqual(['#1f6f6b', null])
  })

  it('a deck of one house of the demo finds all its own in the other', () => {
    const found = usedColors(namedColors(session(seasonReview()).document))
    const own = new Set(saltmereLine.palette.map(each => each.color))
    const proposed = proposePaints(found, winterService, saltmereLine).filter(each => own.has(each.color))
    expect(proposed.length).toBeGreaterThan(0)
    const colors = winterService.palette.map(each => each.color)
    for (const each of proposed) expect([...colors, null]).toContain(each.to)
    expect(proposed.some(each => each.to !== null)).toBe(true)
  })
})
