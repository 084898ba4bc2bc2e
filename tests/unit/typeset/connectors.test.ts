import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { alongCorners, route, type Obstacle, type Place } from '../../../core/typeset/connectors'
import { displayPage } from '../../../core/typeset/display'
import { drawingOf, drawnPage, graphicStyle } from '../../support/fixtures'
import { processorTime } from '../../support/processor-time'

const box = (left: number, top: number, right: number, bottom: number): Obstacle => ({ left, top, right, bottom })
const free = (x: number, y: number) => ({ at: { x, y }, shape: null })
const through = (corners: readonly Place[], { left, top, right, bottom }: Obstacle) =>
  corners.slice(1).some((to, index) => {
    const from = corners[index]!
    return (
      Math.max(from.x, to.x) > left + 1 &&
      Math.min(from.x, to.x) < right - 1 &&
      Math.max(from.y, to.y) > top + 1 &&
      Math.min(from.y, to.y) < bottom - 1
    )
  })

describe('connectors', () => {
  it('go in steps that bend half way, where nothing is in their way', () => {
    expect(route(free(0, 0), free(100, 60), [])).toEqual([
      { x: 0, y: 0 },
      { x: 50, y: 0 },
      { x: 50, y: 60 },
      { x: 100, y: 60 },
    ])
    expect(route(free(0, 0), free(100, 0), [])).toEqual([
      { x: 0, y: 0 },
      { x: 100, y: 0 },
    ])
  })

  it('go around what is in their way', () => {
    const wall = box(40, -50, 60, 50)
    const corners = route(free(0, 0), free(100, 0), [wall])!
    expect(through(corners, wall)).toBe(false)
    expect(corners.length).toBeGreaterThan(3)
    expect(
      through(
        [
          { x: 0, y: 0 },
          { x: 100, y: 0 },
        ],
        wall,
      ),
    ).toBe(true)
  })

  it('leave and reach shapes at right angles, on the side where they are held', () => {
    const from = box(0, 0, 40, 20)
    const to = box(100, 100, 140, 120)
    const corners = route({ at: { x: 20, y: 0 }, shape: from }, { at: { x: 120, y: 120 }, shape: to }, [from, to])!
    expect([corners[1]!.x, corners[1]!.y < 0]).toEqual([20, true])
    expect([corners.at(-2)!.x, corners.at(-2)!.y > 120]).toEqual([120, true])
    for (const shape of [from, to]) expect(through(corners, shape)).toBe(false)
  })

  it('look at nothing else where nothing is in their way, however many shapes there are', () => {
    const far = Array.from({ length: 900 }, (_, at) => box(200 + at * 10, 200, 205 + at * 10, 205))
    const taken = processorTime()
    for (let round = 0; round < 200; round++) expect(route(free(0, 0), free(100, 60), far)).toHaveLength(4)
    expect(taken()).toBeLessThan(5000)
  })

  it('say that there is no way where they are shut in', () => {
    const walls = [box(-30, -30, 30, -20), box(-30, 20, 30, 30), box(-30, -30, -20, 30), box(20, -30, 30, 30)]
    expect(route(free(0, 0), free(100, 0), walls)).toBeNull()
  })

  it('run level or upright from end to end, and through nothing, wherever shapes stand: a property', () => {
    const shape = fc
      .record({ x: fc.integer({ min: 0, max: 15 }), y: fc.integer({ min: 0, max: 15 }) })
      .map(({ x, y }) => box(x * 60 + 10, y * 60 + 10, x * 60 + 40, y * 60 + 40))
    fc.assert(
      fc.property(fc.uniqueArray(shape, { maxLength: 12, selector: each => `${each.left} ${each.top}` }), shapes => {
        const corners = route(free(0, 0), free(1000, 990), shapes)!
        expect([corners[0], corners.at(-1)]).toEqual([
          { x: 0, y: 0 },
          { x: 1000, y: 990 },
        ])
        for (let index = 1; index < corners.length; index++)
          expect(
            Math.min(
              Math.abs(corners[index]!.x - corners[index - 1]!.x),
              Math.abs(corners[index]!.y - corners[index - 1]!.y),
            ),
          ).toBeLessThan(0.01)
        for (const each of shapes) expect(through(corners, each)).toBe(false)
      }),
      { numRuns: 60 },
    )
  })

  it('of a file that says no path are drawn around the shapes of their page; those of lines are straight', () => {
    const drawn = (kind: string) =>
      displayPage(
        drawingOf({
          automatic: graphicStyle('s', 'draw:fill="solid" draw:stroke="solid"'),
          pages: drawnPage(
            `<draw:rect draw:id="a" draw:style-name="s" svg:x="0pt" svg:y="90pt" svg:width="40pt" svg:height="20pt"/>` +
              `<draw:rect draw:style-name="s" svg:x="100pt" svg:y="50pt" svg:width="40pt" svg:height="100pt"/>` +
              `<draw:rect draw:id="b" draw:style-name="s" svg:x="200pt" svg:y="90pt" svg:width="40pt" svg:height="20pt"/>` +
              `<draw:connector draw:style-name="s" draw:type="${kind}" draw:start-shape="a" draw:end-shape="b" ` +
              `svg:x1="40pt" svg:y1="100pt" svg:x2="200pt" svg:y2="100pt"/>`,
          ),
        }).composition.pages[0]!,
      ).shapes.at(-1)! as { data: string; x: number; y: number }
    const cornersOf = (data: string) =>
      [...data.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(match => ({
        x: Number(match[1]) + 40,
        y: Number(match[2]) + 100,
      }))
    expect(through(cornersOf(drawn('standard').data), box(100, 50, 140, 150))).toBe(false)
    expect(cornersOf(drawn('line').data)).toEqual([
      { x: 40, y: 100 },
      { x: 200, y: 100 },
    ])
    expect(drawn('curve').data).toContain('C')
  })

  it('that are curved go by the middles of their stretches', () => {
    const corners = [
      { x: 0, y: 0 },
      { x: 30, y: 0 },
      { x: 30, y: 60 },
    ]
    expect(alongCorners(corners, true)).toBe('M0 0 C20 0 30 20 30 60')
    expect(alongCorners(corners, false)).toBe('M0 0 L30 0 L30 60')
  })
})
