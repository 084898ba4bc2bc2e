import { describe, expect, it } from 'vitest'
import type { Plan } from '../../../core/change/plan'
import { recordCsv } from '../../../core/change/record-csv'

const plan: Omit<Plan, 'operations'> = {
  request: { wishes: [], leftOut: [] },
  title: 'Put Jost in place of Skerrow',
  sentences: ['Put Jost in place of Skerrow everywhere.', 'Settle, “all” of it.'],
  rows: [
    {
      key: { what: 'a' },
      stage: 'style',
      optional: true,
      included: true,
      reason: null,
      title: 'Paragraph style Body',
      count: 3,
      characters: 120,
      before: 'Skerrow',
      after: 'Jost',
      places: [],
    },
    {
      key: { what: 'b' },
      stage: 'style',
      optional: true,
      included: false,
      reason: null,
      title: 'Paragraph style Head',
      count: 1,
      characters: 8,
      before: 'Skerrow',
      after: 'Jost',
      places: [],
    },
    {
      key: { what: 'c' },
      stage: 'style',
      optional: true,
      included: false,
      reason: 'a font of signs',
      title: 'Bullets',
      count: 2,
      characters: 0,
      before: 'Signs',
      after: 'Jost',
      places: [],
    },
  ],
  left: [{ what: 'links', reason: 'they stay', count: 4 }],
  stale: ['the thumbnail'],
  places: 3,
  characters: 120,
  effects: {
    pagesBefore: 4,
    pagesAfter: 5,
    paragraphs: [
      { page: 1, title: false, linesBefore: 3, linesAfter: 4, opening: 'One, two' },
      { page: 0, title: true, linesBefore: 1, linesAfter: 2, opening: 'Head' },
    ],
    overset: [{ page: 2, name: 'Box 1', characters: 30, linesBefore: 0, lines: 2 }],
    tables: [{ page: 3, rows: 6, heightBefore: 100, heightAfter: 120, opening: 'Fares' }],
  } as never,
  mappings: [
    {
      from: { family: 'Skerrow', style: 'Bold' },
      to: { family: 'Jost', style: 'SemiBold' },
      characters: 20,
      note: 'the nearest weight',
    } as never,
  ],
  groups: [],
  sizes: [],
  missingGlyphs: [{ codePoint: 0x2605, character: '★', count: 2, face: 'Jost Regular' }],
  made: [],
}
const of = { fileName: 'Guide.odt', version: 7, made: new Date('2026-03-01T10:00:00Z') }

describe('the record of a change as CSV', () => {
  it('has the change, its wishes, faces and places, what it did to the pages, and what stayed', () => {
    expect(recordCsv(plan, of).trim().split(/\r\n/)).toEqual([
      'what,where,count,characters,before,after,remark',
      'change,"Guide.odt, version 7",3,120,,Put Jost in place of Skerrow,2026-03-01T10:00:00.000Z',
      'wish,,,,,Put Jost in place of Skerrow everywhere.,',
      'wish,,,,,"Settle, “all” of it.",',
      'face,,,20,Skerrow Bold,Jost SemiBold,the nearest weight',
      'place,Paragraph style Body,3,120,Skerrow,Jost,',
      'place,Paragraph style Head,1,8,Skerrow,Skerrow,left out by hand',
      'place,Bullets,2,0,Signs,Signs,a font of signs',
      'pages,,,,4,5,',
      'paragraph,page 2,,,3 lines,4 lines,"One, two"',
      'title,page 1,,,1 lines,2 lines,Head',
      'frame runs over,page 3,,30,0 lines over,2 lines over,Box 1',
      'table,page 4,6,,100 pt,120 pt,Fares',
      'missing sign,Jost Regular,2,,,,★ U+2605',
      'stays,links,4,,,,they stay',
      'dropped,the thumbnail,,,,,drawn anew by the next program that saves',
    ])
  })

  it('says nothing of pages where they were not looked at', () => {
    const lines = recordCsv({ ...plan, effects: null }, of)
    expect(lines).not.toContain('pages,')
    expect(lines).toContain('missing sign')
  })
})
