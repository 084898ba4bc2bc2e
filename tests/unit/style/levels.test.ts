import { describe, expect, it } from 'vitest'
import { frameStyles } from '../../../core/style/layers'
import { drawingOf, drawnPage, graphicStyle } from '../../support/fixtures'

const style = (name: string, parent = '', family = 'presentation') =>
  graphicStyle(name, '', '', '', parent && ` style:parent-style-name="${parent}"`, family)
const of = drawingOf({
  pages: drawnPage(''),
  styles:
    style('Base', '', 'graphic') +
    style('M-outline1', '') +
    Array.from({ length: 8 }, (_, at) => style(`M-outline${at + 2}`, `M-outline${at + 1}`)).join('') +
    style('M-title') +
    style('M-short-outline1') +
    style('Own', 'M-outline1') +
    style('Both') +
    style('Both', '', 'graphic'),
})
const scope = [...of.reading.cascade.scopes.values()][0]!
const names = (name: string | null, level?: number) => frameStyles(scope, name, level).map(each => each.name)

describe('the styles of a frame, for text of a level', () => {
  it('are its own and those it goes back to, for the first level and outside of outlines', () => {
    expect(names('M-outline1')).toEqual(['M-outline1'])
    expect(names('M-outline1', 1)).toEqual(['M-outline1'])
    expect(names('M-title', 3)).toEqual(['M-title'])
    expect(names('Base', 3)).toEqual(['Base'])
    expect(names('Nobody', 2)).toEqual([])
    expect(names(null, 2)).toEqual([])
  })

  it('have the style of that level in place of the first, nine at most', () => {
    expect(names('M-outline1', 2)).toEqual(['M-outline1', 'M-outline2'])
    expect(names('M-outline1', 9)).toHaveLength(9)
    expect(names('M-outline1', 10)).toEqual(names('M-outline1', 9))
    expect(names('M-outline1', 3).at(-1)).toBe('M-outline3')
    // A style of the frame's own stays on top.
    expect(names('Own', 2)).toEqual(['M-outline1', 'M-outline2', 'Own'])
    // A master that has no such level has its first one.
    expect(names('M-short-outline1', 2)).toEqual(['M-short-outline1'])
  })

  it('are those of placeholders before those of frames, where two have one name', () => {
    expect(frameStyles(scope, 'Both')[0]!.family).toBe('presentation')
  })
})
