import { describe, expect, it } from 'vitest'
import { walkOrder, walkRows } from '../../../app/change/walk-rows'
import type { Effects } from '../../../core/change/effects'

const nothing: Effects = {
  pagesBefore: 9,
  pagesAfter: 9,
  linesBefore: 90,
  linesAfter: 91,
  paragraphs: [],
  paragraphsChanged: 0,
  overset: [],
  frames: [],
  tables: [],
  pages: [],
  unlaid: [],
}
const place = { part: 'content.xml', node: 1 }
const paragraph = (more: Partial<Effects['paragraphs'][number]>): Effects['paragraphs'][number] => ({
  ...{ ...place, page: 0, pageAfter: 0, linesBefore: 2, linesAfter: 3, opening: ' Boats ', title: false, notes: false },
  ...more,
})
const table = (heightBefore: number, heightAfter: number, page: number): Effects['tables'][number] => ({
  ...{ ...place, page, heightBefore, heightAfter, rows: 1, opening: '' },
})
const frame = (lines: number, linesBefore: number, page: number): Effects['overset'][number] => ({
  ...{ ...place, name: '', page, lines, linesBefore, characters: 9 },
})

describe('rows of a walk', () => {
  it('tell what runs over first, then titles, tables, paragraphs that grow or shrink, and empty space', () => {
    const rows = walkRows({
      ...nothing,
      frames: [{ ...place, name: 'Box', page: 0, roomBefore: 4, roomAfter: 9, notes: false }],
      paragraphs: [
        paragraph({ linesBefore: 3, linesAfter: 2, page: 1 }),
        paragraph({ page: 2 }),
        paragraph({ title: true, page: 3 }),
      ],
      tables: [table(40, 52, 4)],
      overset: [frame(2, 0, 5)],
    })
    expect(rows.map(({ page, grave, flagged }) => [page, grave, flagged])).toEqual([
      [5, 0, true],
      [3, 1, true],
      [4, 2, true],
      [2, 3, true],
      [1, 4, false],
      [0, 5, false],
    ])
    expect(rows.map(row => `${row.what}: ${row.change}`)).toEqual([
      'A frame runs over: 0 → 2 lines over',
      'Title wraps anew: “Boats”: 2 → 3 lines',
      'Table grows, 1 row: 40 → 52 pt',
      '“Boats”: 2 → 3 lines',
      '“Boats”: 3 → 2 lines',
      'Box, empty space: 4 → 9 pt',
    ])
  })

  it('flag a frame whose lines over change either way, and nothing of speaker notes or tables that shrink', () => {
    const rows = walkRows({
      ...nothing,
      overset: [frame(3, 3, 0), frame(1, 2, 1)],
      paragraphs: [paragraph({ notes: true, page: 2, opening: 'w'.repeat(60) })],
      tables: [table(52, 40, 3)],
    })
    expect(rows.filter(row => row.flagged).map(row => row.page)).toEqual([1])
    // What ran over before, and no more than now, is not the plan's doing.
    expect(rows.filter(row => row.of === 'frame').map(row => row.grave)).toEqual([3, 3])
    expect(rows.find(row => row.page === 2)!.what).toBe(`Speaker notes: “${'w'.repeat(60)} …”`)
    expect(rows.find(row => row.page === 3)!.what).toBe('Table shrinks, 1 row')
  })

  it('put flagged pages before the others, each once, in their order, and no page that there is not', () => {
    const rows = walkRows({
      ...nothing,
      paragraphs: [paragraph({ page: 7 }), paragraph({ page: 3, linesAfter: 1 }), paragraph({ page: 5 })],
      overset: [frame(1, 0, -1)],
    })
    expect(walkOrder(rows, [8, 0, 5, -1, 3])).toEqual({ flagged: [5, 7], all: [5, 7, 0, 3, 8] })
    expect(walkOrder([], [])).toEqual({ flagged: [], all: [] })
  })
})
