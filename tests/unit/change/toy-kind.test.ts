import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { run } from '../../../cli/run'
import { registry } from '../../../core/change/registry'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphText } from '../../../core/style/runs'
import { makeOdt, session } from '../../support/fixtures'
import { toyRegistry } from '../../support/toy-kind'

const bytes = makeOdt({ body: '<text:p>The boat is late</text:p><text:p>It is Tuesday</text:p><text:p/>' })
const texts = (of: DocumentSession) => paragraphsOf(of.reading.stories[0]!.blocks).map(paragraphText)
const wish = { type: 'shout', sign: '!' }
const request = (more: object = {}) => toyRegistry.schema.parse({ wishes: [wish], ...more })

describe('a kind that is registered', () => {
  it('is known to nobody else: the desk’s own door refuses it', () => {
    expect(registry.schema.safeParse({ wishes: [wish] }).success).toBe(false)
    expect(toyRegistry.schema.safeParse({ wishes: [{ ...wish, sign: '' }] }).success).toBe(false)
    expect(toyRegistry.schema.safeParse({ wishes: Array.from({ length: 4 }, () => wish) }).success).toBe(false)
  })

  it('is planned with its rows, its sentence and what it does to the pages', () => {
    const { plan, after } = toyRegistry.plan(session(bytes), request())
    expect(texts(after)).toEqual(['The boat is late!', 'It is Tuesday!', ''])
    expect(plan).toMatchObject({
      title: 'Shout in 2 places',
      sentences: ['Put “!” behind every paragraph.'],
      places: 2,
      effects: { pagesBefore: 1, pagesAfter: 1 },
    })
    expect(plan.rows.map(row => [row.stage, row.optional, row.included])).toEqual([
      ['shout', true, true],
      ['shout', true, true],
    ])
  })

  it('is left out in part, by the keys of its rows as they come through the door', () => {
    const [first] = toyRegistry.plan(session(bytes), request()).plan.rows
    const asked = request({ leftOut: JSON.parse(JSON.stringify([first!.key])) as object })
    const { plan, after } = toyRegistry.plan(session(bytes), asked)
    expect(texts(after)).toEqual(['The boat is late', 'It is Tuesday!', ''])
    expect(plan.places).toBe(1)
  })

  it('goes with wishes of other kinds in one request, each on what the one before left', () => {
    const find = { words: { text: 'Tuesday!', matchCase: true }, look: {} }
    const asked = request({ wishes: [wish, { type: 'recast', find, change: { words: 'Friday?' } }] })
    const { plan, after } = toyRegistry.plan(session(bytes), asked)
    expect(texts(after)).toEqual(['The boat is late!', 'It is Friday?', ''])
    expect(plan.title).toContain('Shout in 2 places; Recast 1 place')
    // Asked the other way round, the recast finds nothing to change yet.
    const other = request({ wishes: [{ type: 'recast', find, change: { words: 'Friday?' } }, wish] })
    expect(texts(toyRegistry.plan(session(bytes), other).after)[1]).toBe('It is Tuesday!')
  })
})

describe('the command line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'morphene-toy-'))
  afterAll(() => rmSync(folder, { recursive: true }))
  const [file, asked, out] = [join(folder, 'a.odt'), join(folder, 'wish.json'), join(folder, 'out.odt')]
  writeFileSync(file, bytes)

  it('carries out wishes of a file, of any kind that is registered', async () => {
    writeFileSync(asked, JSON.stringify(wish))
    const outcome = await run(['plan', file, '--wish', asked, '--out', out], toyRegistry)
    expect(outcome.code).toBe(0)
    expect(outcome.text).toContain('Shout in 2 places')
    expect(texts(session(new Uint8Array(readFileSync(out))))[0]).toBe('The boat is late!')
    await expect(run(['plan', file, '--wish', asked])).rejects.toThrow('the wish cannot be read')
  })

  it('takes whole requests, what is left out with them, and says what cannot be read', async () => {
    const [first] = toyRegistry.plan(session(bytes), request()).plan.rows
    writeFileSync(asked, JSON.stringify({ wishes: [wish], leftOut: [first!.key] }))
    const data = JSON.parse((await run(['plan', file, '--wish', asked, '--json'], toyRegistry)).text) as {
      places: number
      written: null
    }
    expect(data).toMatchObject({ places: 1, written: null })
    writeFileSync(asked, '{')
    await expect(run(['plan', file, '--wish', asked])).rejects.toThrow('is no JSON')
    await expect(run(['plan', file])).rejects.toThrow('plan needs --wish')
    writeFileSync(asked, JSON.stringify({ type: 'settle', scope: { kind: 'document' }, groups: ['size'] }))
    // Nothing is set by hand here: nothing to do, and nothing written.
    expect((await run(['plan', file, '--wish', asked, '--out', join(folder, 'none.odt')])).code).toBe(2)
  })

  it('undoes to the byte', () => {
    const of = session(bytes)
    const { after } = toyRegistry.plan(of, request())
    expect(saveDocument(after.document)).not.toEqual(bytes)
    expect(saveDocument(of.document)).toEqual(bytes)
  })
})
