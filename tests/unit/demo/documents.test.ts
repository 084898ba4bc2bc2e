import { describe, expect, it } from 'vitest'
import { crewHandbook } from '../../../demo/crew-handbook'
import { demoDocuments } from '../../../demo/documents'
import { harbourNotice } from '../../../demo/harbour-notice'
import { displayPage } from '../../../core/typeset/display'
import { countCharacters, parts } from '../../support/independent'
import { session } from '../../support/fixtures'

describe('the demo’s documents', () => {
  it.each(demoDocuments.map(document => [document.fileName, document.make] as const))('%s: the same file every time, whole, and counted alike by another reading', (_name, make) => {
    const bytes = make()
    expect(Buffer.compare(bytes, make())).toBe(0)
    expect(Object.keys(parts(bytes))[0]).toBe('mimetype')
    expect(session(bytes).detail.census.characters).toBe(countCharacters(bytes))
  })
})

describe('the Crew handbook', () => {
  const open = session(crewHandbook())

  it('has two hundred pages, with everything on them composed', () => {
    expect(open.composition.pages.length).toBeGreaterThan(190)
    expect(open.composition.pages.length).toBeLessThan(210)
    expect(open.composition.unlaid).toEqual([])
  })

  it('has its planted faults: a retired face, a twin, frames that run over', () => {
    const { census } = open.detail
    expect(census.faces.filter(face => face.status === 'absent').map(face => face.family)).toEqual(['Skerrow'])
    expect(census.voices.some(voice => voice.twinOf !== null && voice.unowned)).toBe(true)
    expect(census.frames[0]).toMatchObject({ name: 'Fleet 2', page: 0 })
    expect(census.settled).toBeGreaterThan(0.95)
  })

  it('numbers its chapters and cards, and names the chapter on every page', () => {
    const pages = open.composition.pages.map(displayPage)
    expect(pages[0]!.runs.some(run => run.text === '1 About this book' || run.text.startsWith('About this book'))).toBe(true)
    const heads = pages.slice(0, 30).map(page => page.runs.find(run => run.size === 8 && run.y < 60)?.text)
    expect(heads[0]).toBe('About this book')
    expect(heads[20]).toBe('The Grey Plover')
  })

  it('repeats the heads of its watch bills', () => {
    const weeks = open.composition.pages.map(displayPage).filter(page => page.runs.some(run => run.text === 'Forenoon'))
    expect(weeks.length).toBeGreaterThan(10)
  })
})

describe('the Harbour notice', () => {
  it('fits its one page, letterhead, address, box and all', () => {
    const { composition, detail } = session(harbourNotice())
    expect(composition.pages).toHaveLength(1)
    expect(composition.overset).toEqual([])
    const text = displayPage(composition.pages[0]!).runs.map(run => run.text).join(' ')
    for (const words of ['Saltmere Line', 'The householders of Tern Holm', 'In its place', 'M. Aldous']) expect(text).toContain(words)
    expect(detail.census.faces.every(face => face.status === 'present')).toBe(true)
  })

  it('sets its times on the point', () => {
    const page = displayPage(session(harbourNotice()).composition.pages[0]!)
    const points = page.runs.filter(run => ['7.35', '8.10', '10.05', '11.20'].includes(run.text.trim())).map(run => run.x + run.xs[run.text.indexOf('.')]!)
    expect(points.length).toBe(4)
    for (const point of points) expect(point).toBeCloseTo(points[0]!, 1)
  })
})
