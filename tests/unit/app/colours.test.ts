import { beforeEach, describe, expect, it } from 'vitest'
import { useColours } from '../../../app/stores/colours'
import { contrast } from '../../../core/colour/contrast'
import { ownPalettes } from '../../../core/house/own-palettes'
import { appGlobals } from '../../support/app-globals'

beforeEach(() => appGlobals(() => Promise.resolve([])))

describe('a palette in the making', () => {
  it('looks for colours on the side of the ground that has room, at the contrast that is asked for', () => {
    const colours = useColours()
    expect(colours.side).toBe('darker')
    expect(colours.reached!.ratio).toBeGreaterThanOrEqual(4.5)
    colours.wanted = 7
    expect(colours.reached!.ratio).toBeGreaterThanOrEqual(7)
    const dark = ownPalettes.find(each => each.name === 'Kelp')!
    colours.take(dark.name, dark.palette.colors)
    expect([colours.side, colours.name]).toEqual(['lighter', 'Kelp'])
    expect(contrast(colours.reached!.color, colours.ground)).toBeGreaterThanOrEqual(7)
  })

  it('goes to where a chosen colour lies, and marks its harmonies', () => {
    const colours = useColours()
    colours.choose('accent')
    const { hue } = colours.at
    expect(colours.marks.map(each => each.harmony)).toContain('complementary')
    colours.point(hue + 180, 5)
    expect(colours.at.chroma).toBeLessThan(0.3)
    colours.give('#123456')
    expect(colours.chosen!.color).toBe('#123456')
  })

  it('takes colours in and lets them go', () => {
    const colours = useColours()
    const count = colours.colors.length
    colours.add('#abcdef')
    expect(colours.chosen).toMatchObject({ title: '#abcdef', does: 'accent' })
    colours.set(colours.colors.filter(each => each.color !== '#abcdef'))
    expect([colours.colors.length, colours.chosenId]).toEqual([count, colours.colors[0]!.id])
    colours.set([])
    expect([colours.chosen, colours.ground, colours.marks]).toEqual([null, '#ffffff', []])
  })
})
