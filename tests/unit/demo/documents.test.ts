import { describe, expect, it } from 'vitest'
import { crewHandbook } from '../../../demo/crew-handbook'
import { demoDocuments } from '../../../demo/documents'
import { galleyMenu } from '../../../demo/galley-menu'
import { harbourNotice } from '../../../demo/harbour-notice'
import { safetyCard } from '../../../demo/safety-card'
import { seasonReview } from '../../../demo/season-review'
import { saveDocument } from '../../../core/document/open'
import { displayPage } from '../../../core/typeset/display'
import { countCharacters, familiesIn, otherDifferences, parts, xmlParts } from '../../support/independent'
import { session } from '../../support/fixtures'
import { quickly, swap } from '../../support/planning'

describe('the demo’s documents', () => {
  it.each(demoDocuments.map(document => [document.fileName, document.make] as const))(
    '%s: the same file every time, whole, and counted alike by another reading',
    (_name, make) => {
      const bytes = make()
      expect(Buffer.compare(bytes, make())).toBe(0)
      expect(Object.keys(parts(bytes))[0]).toBe('mimetype')
      expect(session(bytes).detail.census.characters).toBe(countCharacters(bytes))
    },
  )
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
    expect(pages[0]!.runs.some(run => run.text === '1 About this book' || run.text.startsWith('About this book'))).toBe(
      true,
    )
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
    const text = displayPage(composition.pages[0]!)
      .runs.map(run => run.text)
      .join(' ')
    for (const words of ['Saltmere Line', 'The householders of Tern Holm', 'In its place', 'M. Aldous'])
      expect(text).toContain(words)
    expect(detail.census.faces.every(face => face.status === 'present')).toBe(true)
  })

  it('sets its times on the point', () => {
    const page = displayPage(session(harbourNotice()).composition.pages[0]!)
    const points = page.runs
      .filter(run => ['7.35', '8.10', '10.05', '11.20'].includes(run.text.trim()))
      .map(run => run.x + run.xs[run.text.indexOf('.')]!)
    expect(points.length).toBe(4)
    for (const point of points) expect(point).toBeCloseTo(points[0]!, 1)
  })
})

describe('the Season review', () => {
  const open = session(seasonReview())

  it('has fourteen slides with notes, set whole', () => {
    expect([open.composition.pages.length, open.composition.notes.length, open.composition.masters.length]).toEqual([
      14, 14, 5,
    ])
    expect(open.composition.unlaid).toEqual([])
    expect(open.composition.overset).toEqual([])
    expect(open.composition.pages.map(page => page.name).slice(0, 3)).toEqual([
      'The season in review',
      'What was asked of us',
      'Passengers by month',
    ])
  })

  it('hides a retired face in charts, notes, a handout and what new shapes start with', () => {
    const skerrow = open.detail.census.faces.filter(face => face.family === 'Skerrow')
    expect(skerrow.every(face => face.status === 'absent')).toBe(true)
    const places = skerrow.reduce(
      (sum, face) => ({
        chart: sum.chart + face.places.chart,
        note: sum.note + face.places.note,
        frame: sum.frame + face.places.frame,
        header: sum.header + face.places.header,
        default: sum.default + face.places.default,
      }),
      { chart: 0, note: 0, frame: 0, header: 0, default: 0 },
    )
    for (const [place, count] of Object.entries(places)) expect(count, place).toBeGreaterThan(0)
    expect(skerrow.find(face => face.style === 'Regular')!.pages.length).toBe(14)
  })

  it('loses every trace of it in a swap, and nothing else', () => {
    const [old, now] = [
      parts(seasonReview()),
      parts(saveDocument(quickly(open, swap('Skerrow', 'Jost')).after.document)),
    ]
    for (const path of xmlParts(now)) {
      expect(familiesIn(now[path]!).has('skerrow'), path).toBe(false)
      expect(otherDifferences(old[path]!, now[path]!), path).toEqual([])
    }
  })

  it('shrinks the long letter into its frame', () => {
    const fill = open.composition.fills.find(each => each.name === 'Letter one')!
    expect(fill.shrunk).toBeLessThan(1)
    expect(fill.over).toBeNull()
  })
})

describe('the Galley menu and the Safety card', () => {
  it('names two absent families, carries the file of a third, and lets its story run over three panels', () => {
    const { composition, detail } = session(galleyMenu())
    expect(
      detail.census.faces
        .filter(face => face.status === 'absent')
        .map(face => face.family)
        .sort(),
    ).toEqual(['Brannock', 'Tolmere Script'])
    expect(Object.keys(parts(galleyMenu()))).toContain('Fonts/Kalam.ttf')
    expect(composition.overset).toEqual([])
    const [outside, inside] = composition.pages.map(displayPage)
    const lines = (page: typeof outside, left: number) =>
      page!.runs
        .filter(run => run.face && run.x > (left * 72) / 2.54 && run.x < ((left + 8) * 72) / 2.54)
        .map(run => run.text)
        .join('')
    expect(lines(outside, 0.9)).toContain('two metres by three')
    expect(lines(outside, 10.8) + lines(inside, 20.7)).toContain('lower than it looks')
    expect(outside!.offPage).toBe(1)
  })

  it('is all shapes, each with its words', () => {
    const { composition, document } = session(safetyCard())
    expect(document.kind).toBe('drawing')
    expect(composition.unlaid).toEqual([])
    const words = composition.pages
      .map(page =>
        displayPage(page)
          .runs.map(run => run.text)
          .join('|'),
      )
      .join('|')
    for (const text of ['Stop', 'one ring,', 'To the boats', 'You sit here', 'Boat B']) expect(words).toContain(text)
  })
})
