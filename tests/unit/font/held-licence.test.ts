import { describe, expect, it } from 'vitest'
import { catalogueOf } from '../../../core/font/catalogue'
import {
  heldLicenceSchema,
  isOver,
  licenceWords,
  notAllowed,
  withHeld,
  type NamedLicence,
} from '../../../core/font/held-licence'
import { judged, judgementSchema } from '../../../core/font/judgement'
import { licenceOf } from '../../../core/font/licence'
import { library } from '../../support/fixtures'

const closed = licenceOf({ licence: 'Licensed by the foundry. May not be passed on.', embedding: 'preview' })
const open = licenceOf({
  licence: 'This Font Software is licensed under the SIL Open Font License, Version 1.1.',
  embedding: 'installable',
})
const harbour: NamedLicence = {
  name: 'Harbour set',
  families: ['Skerrow', 'Skerrow Text'],
  uses: ['print', 'PDF'],
  seats: 5,
  until: '2027-03-31',
  holder: 'the print desk',
}
const right = (of: ReturnType<typeof withHeld>, use: string) => of.uses.find(each => each.use === use)!

describe('a licence that is held', () => {
  it('allows what it names, whatever the file leaves open, and nothing more', () => {
    const held = withHeld('skerrow text', closed, [harbour], '2026-11-29')
    expect(right(held, 'print')).toEqual({
      use: 'print',
      right: 'allowed',
      from: 'Harbour set, 5 seats, until 2027-03-31, held by the print desk',
    })
    expect(right(held, 'web page').right).toBe('not stated')
    expect(held.ended).toBeNull()
    expect(withHeld('Skerr', closed, [harbour], '2026-11-29').held).toEqual([])
  })

  it('holds on its last day, and is over on the next', () => {
    expect([
      isOver(harbour, '2027-03-31'),
      isOver(harbour, '2027-04-01'),
      isOver({ until: null }, '2999-01-01'),
    ]).toEqual([false, true, false])
    const over = withHeld('Skerrow', closed, [harbour], '2027-04-01')
    expect(right(over, 'PDF')).toEqual({ use: 'PDF', right: 'not allowed', from: 'Harbour set ended on 2027-03-31' })
    expect(over.ended).toBe('2027-03-31')
    // Another that holds takes its place.
    const renewed = withHeld(
      'Skerrow',
      closed,
      [harbour, { ...harbour, name: 'Renewed', until: null, seats: 1, holder: '' }],
      '2027-04-01',
    )
    expect([renewed.ended, right(renewed, 'PDF').from]).toEqual([null, 'Renewed, 1 seat'])
  })

  it('takes nothing from faces whose own licence is open', () => {
    const over = withHeld('Skerrow', open, [harbour], '2030-01-01')
    expect([over.ended, right(over, 'print').right]).toEqual([null, 'allowed'])
  })

  it('is told in words, and refused where it says nothing or names no day', () => {
    expect(licenceWords({ ...harbour, seats: null, until: null, holder: '' })).toBe('Harbour set')
    const { name: _name, ...data } = harbour
    expect(heldLicenceSchema.safeParse(data).success).toBe(true)
    for (const wrong of [
      { until: '31.3.2027' },
      { until: '2027-02-30' },
      { families: [] },
      { uses: ['all'] },
      { seats: 0 },
    ])
      expect(heldLicenceSchema.safeParse({ ...data, ...wrong }).success, JSON.stringify(wrong)).toBe(false)
  })

  it('says which of some uses are not allowed', () => {
    expect(notAllowed(open, ['print', 'goods for sale'])).toEqual([])
    expect(notAllowed(closed, ['print', 'web page']).map(each => each.use)).toEqual(['print', 'web page'])
  })
})

describe('what is known of faces with what people say of them', () => {
  const by = {
    licences: [{ ...harbour, families: ['Inter', 'Lora'] }],
    judgements: [{ family: 'lora', class: 'display', kind: 'fancy' } as const],
    today: '2026-11-29',
  }
  const all = catalogueOf(library, by)
  const entry = (family: string, list = all) => list.find(each => each.family === family)!

  it('goes by a class that was judged by hand, and fitness follows it', () => {
    expect(entry('Lora').classed).toMatchObject({ class: 'display', kind: 'fancy', reasons: ['judged by hand'] })
    expect(entry('Lora').fitness.find(each => each.use === 'long reading')!.fit).toBe(false)
    const before = catalogueOf(library)
    expect(entry('Lora', before).classed.class).toBe('serif')
    expect(entry('Lora', before).fitness.find(each => each.use === 'long reading')!.fit).toBe(true)
  })

  it('goes by licences that are held', () => {
    expect(entry('Inter').licence.held).toHaveLength(1)
    expect(entry('Spectral').licence.held).toEqual([])
    expect(judgementSchema.safeParse({ family: 'Lora', class: 'sans', kind: 'fancy' }).success).toBe(false)
    const worked = entry('Spectral').classed
    expect(judged('Spectral', worked, by.judgements)).toBe(worked)
  })
})
