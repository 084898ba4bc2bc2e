import { beforeEach, describe, expect, it } from 'vitest'
import { useDesk } from '../../../app/stores/desk'
import { useFaceLists } from '../../../app/stores/kept'
import { useType } from '../../../app/stores/type'
import { shippedFaces } from '../../../server/library/shipped'
import { appGlobals } from '../../support/app-globals'

beforeEach(() => {
  appGlobals(async path => (path === '/api/faces' ? shippedFaces().map(each => each.face) : []))
})

describe('what is switched on', () => {
  it('is offered by pickers, and all else stays in the library; a folder’s lists hold in place of the desk’s', async () => {
    const list = (id: string, name: string, data: string[]) => ({ id, heading: '', name, data })
    const answers: Record<string, unknown> = {
      '/api/faces': shippedFaces().map(each => each.face),
      '/api/kept/face%20list': [list('a', 'House', ['Inter', 'Lora']), list('b', 'Posters', ['Anton'])],
      '/api/kept/sets%20on': [
        { id: '1', heading: '', name: 'desk', data: ['a'] },
        { id: '2', heading: '', name: 'fair', data: ['b'] },
      ],
    }
    const put: unknown[] = []
    appGlobals(async (path, options) => {
      if (options) put.push([path, (options as { body?: unknown }).body])
      return answers[path] ?? []
    })
    const type = useType()
    await type.load()
    expect(type.choices.map(each => each.family)).toEqual(['Inter', 'Lora'])
    expect(type.result.found.length).toBeGreaterThan(90)
    expect(type.groups.find(each => each.id === 'on')?.count).toBe(2)
    useDesk().info = { document: { folder: 'fair', uses: null } } as never
    expect(type.choices.map(each => each.family)).toEqual(['Anton'])
    useDesk().info = { document: { folder: 'elsewhere', uses: null } } as never
    expect(type.choices).toHaveLength(2)
    // A list that is gone switches nothing on.
    useFaceLists().list = []
    expect(type.choices.length).toBeGreaterThan(90)
    expect([type.isListOn('a', 'desk'), type.isListOn('b', 'desk')]).toEqual([true, false])
    await type.switchList('b', 'desk', true)
    await type.switchList('a', 'desk', false)
    expect(put).toEqual([
      ['/api/kept/sets%20on', { heading: '', name: 'desk', data: ['a', 'b'] }],
      ['/api/kept/sets%20on', { heading: '', name: 'desk', data: [] }],
    ])
  })
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
