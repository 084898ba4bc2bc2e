import { beforeEach, describe, expect, it } from 'vitest'
import { useType } from '../../../app/stores/type'
import { shippedFaces } from '../../../server/library/shipped'
import { appGlobals } from '../../support/app-globals'

beforeEach(() => {
  appGlobals(async path => (path === '/api/faces' ? shippedFaces().map(each => each.face) : []))
})

describe('looking for a face', () => {
  it('lists all families by name until something is asked, and counts what was found by class', async () => {
    const type = useType()
    await type.load()
    expect(type.entries.length).toBeGreaterThan(90)
    expect(type.result.found).toEqual(type.entries)
    type.typed = 'condensed'
    const { length } = type.result.found
    expect(length).toBeGreaterThan(3)
    expect(length).toBeLessThan(20)
    expect(type.facets.reduce((sum, each) => sum + each.count, 0)).toBe(length)
  })

  it('asks for more by a word, and takes a part away by its chip', async () => {
    const type = useType()
    await type.load()
    type.ask('serif')
    expect(type.typed).toBe('serif')
    type.ask('old-style figures')
    expect(type.typed).toBe('serif, old-style figures')
    type.take(type.result.parts[0]!)
    expect(type.typed).toBe('old-style figures')
  })

  it('looks among a group, and offers groups that have something', async () => {
    const type = useType()
    await type.load()
    expect(type.groups.map(each => each.id)).toEqual(['all'])
    type.ofDocument = ['Inter', 'Lora', 'Not Here']
    type.keep('Jost')
    expect(type.groups.map(({ id, count }) => [id, count])).toEqual([
      ['all', type.entries.length],
      ['document', 2],
      ['shortlist', 1],
    ])
    type.group = 'document'
    expect(type.result.found.map(each => each.family)).toEqual(['Inter', 'Lora'])
    type.typed = 'serif'
    expect(type.result.found.map(each => each.family)).toEqual(['Lora'])
  })

  it('keeps eight on the shortlist: the oldest gives way, and what is kept twice goes', async () => {
    const type = useType()
    await type.load()
    const families = type.entries.slice(0, 9).map(each => each.family)
    for (const family of families) type.keep(family)
    expect(type.shortlist).toEqual(families.slice(1))
    type.keep(families[3]!)
    expect(type.shortlist).not.toContain(families[3])
    expect(type.compared.map(each => each.family)).toEqual(type.shortlist)
  })

  it('shows faces with a person’s words before the document’s before its own', () => {
    const type = useType()
    expect(type.shown).toBe('The morning boat is the Grey Plover')
    type.sample = 'Passengers with bicycles'
    expect(type.shown).toBe('Passengers with bicycles')
    type.words = 'Winter timetable'
    expect(type.shown).toBe('Winter timetable')
    type.words = '  '
    expect(type.shown).toBe('Passengers with bicycles')
  })
})
