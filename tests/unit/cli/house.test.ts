import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { command } from '../../../cli/command'
import { namedColors } from '../../../core/document/colours'
import { openDocument } from '../../../core/document/open'
import { usedColors } from '../../../core/house/house-paints'
import { houseFromTokens, houseToTokens } from '../../../core/house/tokens'
import { crewHandbook } from '../../../demo/crew-handbook'
import { harbourNotice } from '../../../demo/harbour-notice'
import { winterService } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { winterTariff } from '../../../demo/winter-tariff'

const folder = mkdtempSync(join(tmpdir(), 'morphene-house-'))
const file = (name: string, bytes?: Uint8Array) => {
  if (bytes) writeFileSync(join(folder, name), bytes)
  return join(folder, name)
}
const [tariff, notice, handbook] = [
  file('tariff.odt', winterTariff()),
  file('notice.odt', harbourNotice()),
  file('handbook.odt', crewHandbook()),
]
afterAll(() => rmSync(folder, { recursive: true }))
interface Drawn {
  readonly settledBefore: number
  readonly settledAfter: number
  readonly linesChanged: number
  readonly styles: readonly { readonly name: string; readonly role: string | null; readonly paragraphs: number }[]
}

describe('drawing up from the command line', () => {
  it('writes the file, and tells each style with its role', async () => {
    const out = file('drawn.odt')
    const { status, stdout } = await command(['draw-up', tariff, '--out', out, '--json'])
    const drawn = JSON.parse(stdout) as Drawn
    expect(status).toBe(0)
    expect(drawn).toMatchObject({ settledBefore: 0, linesChanged: 0, pagesBefore: 2, pagesAfter: 2, written: out })
    expect(drawn.settledAfter).toBeGreaterThan(0.99)
    expect(drawn.styles.find(each => each.name === 'Heading 1')).toMatchObject({ role: 'heading', paragraphs: 4 })
    expect((await command(['draw-up', out])).status).toBe(2)
  })

  it('gives the same voices the same names in several documents, and writes nothing where it is only asked', async () => {
    const twin = file('twin.odt', winterTariff())
    const { stdout } = await command(['draw-up', tariff, twin, '--dry-run', '--json', '--tolerance', '0.5'])
    const [one, other] = JSON.parse(stdout) as Drawn[]
    expect(other!.styles).toEqual(one!.styles)
    expect((await command(['draw-up', tariff, '--tolerance', 'much'])).stderr).toContain('a number of points')
  })
})

describe('houses from the command line', () => {
  it('are drawn up from documents, and dress others', async () => {
    const tokens = file('house.json')
    expect((await command(['house', handbook, notice, '--name', 'Quay', '--out', tokens])).status).toBe(0)
    expect(houseFromTokens(readFileSync(tokens, 'utf8')).name).toBe('Quay')
    const out = file('dressed.odt')
    const { stdout } = await command(['dress', tariff, '--house', tokens, '--out', out, '--json'])
    const said = JSON.parse(stdout) as {
      toStyleBefore: number
      toStyleAfter: number
      overset: unknown[]
      left: unknown[]
    }
    expect(said).toMatchObject({ toStyleBefore: 0, overset: [] })
    expect(said.left).toMatchObject([{ reason: 'the house leaves display open' }])
    expect(said.toStyleAfter).toBeGreaterThan(0.95)
    const census = JSON.parse((await command(['census', out, '--json'])).stdout) as { faces: { family: string }[] }
    expect(census.faces.map(each => each.family)).not.toContain('Work Sans')
    // Once it is dressed, nothing is left to be done.
    const again = await command(['dress', out, '--house', tokens, '--json', '--dry-run'])
    expect((JSON.parse(again.stdout) as { linesChanged: number }).linesChanged).toBe(0)
  })

  it('bring shapes, lines, grounds and charts to the colours of their palette where that is asked for', async () => {
    const deck = file('review.odp', seasonReview())
    const tokens = file('winter.json', new TextEncoder().encode(houseToTokens(winterService)))
    const colors = async (...more: string[]) => {
      const out = file('painted.odp')
      await command(['dress', deck, '--house', tokens, '--out', out, ...more])
      return usedColors(namedColors(openDocument(new Uint8Array(readFileSync(out)))))
    }
    const before = usedColors(namedColors(openDocument(seasonReview())))
    expect(await colors()).toEqual(before)
    const painted = await colors('--paint')
    const own = new Set(winterService.palette.map(each => each.color))
    const share = (list: typeof before) => list.filter(each => own.has(each.color)).length / list.length
    expect(share(painted)).toBeGreaterThan(share(before))
  })

  it('go out as templates and are taken from them', async () => {
    const template = file('house.ott')
    expect((await command(['house', handbook, '--out', template])).stdout).toContain('written:')
    const { stdout, status } = await command(['dress', notice, '--house', template, '--dry-run'])
    expect(status).toBe(0)
    expect(stdout).toMatch(/to style before, \d+\.\d % after/)
  })

  it('say what is wrong with a house that cannot be read', async () => {
    const broken = file('broken.json', new TextEncoder().encode('{"no":"house"}'))
    expect((await command(['dress', tariff, '--house', broken])).stderr).toContain('it is no house')
    expect((await command(['dress', tariff])).stderr).toContain('dress needs --house')
    expect((await command(['dress', tariff, '--house', file('nowhere.json')])).stderr).toContain('there is no file')
  })
})
