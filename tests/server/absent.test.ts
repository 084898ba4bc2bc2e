import type { ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipSync, zlibSync } from 'fflate'
import type { Knex } from 'knex'
import { compress } from 'wawoff2'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Census } from '../../core/census/census'
import { checkTables, isFamily, unpackWoff } from '../../core/font/file-check'
import { galleyMenu } from '../../demo/galley-menu'
import { sailingGuide } from '../../demo/sailing-guide'
import { projectFolder } from '../../server/library/files'
import { checkSingleFont } from '../../server/library/font-file'
import { renamedFont } from '../../server/library/font-rename'
import { delivery, offers } from '../../server/library/supplier'
import { connect } from '../../server/store/database'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 5
const base = `http://127.0.0.1:${port}`
let server: ChildProcess
let knex: Knex
beforeAll(async () => {
  knex = connect()
  server = await startServer(port)
})
afterAll(async () => {
  // The library is the other tests', too.
  await knex('added_faces').delete()
  await knex('stand_ins').delete()
  // Counting anew, which adding faces asks for, would keep the other tests' servers busy.
  await knex('jobs').whereIn('state', ['queued', 'running']).update({ state: 'cancelled' })
  await endServer(server)
  await knex.destroy()
})

const bytesOf = (name: string) =>
  new Uint8Array(readFileSync(join(projectFolder(), 'node_modules/@expo-google-fonts', name)))
const karla = bytesOf('karla/400Regular/Karla_400Regular.ttf')
const send = (method: string, path: string, body?: unknown) =>
  fetch(`${base}${path}`, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  })
const get = async <T>(path: string): Promise<T> => (await (await fetch(`${base}${path}`)).json()) as T
const messageOf = async (response: Response) => ((await response.json()) as { message: string }).message
async function added(bytes: Uint8Array, name: string): Promise<string> {
  const response = await fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
  })
  expect(response.status).toBe(201)
  return ((await response.json()) as { id: string }).id
}
/** The count of a document, once it is as asked. */
async function counted(id: string, what: (census: Census) => boolean): Promise<Census> {
  for (let tries = 0; tries < 400; tries++) {
    const response = await fetch(`${base}/api/documents/${id}/census`)
    if (response.ok) {
      const census = (await response.json()) as Census
      if (what(census)) return census
    }
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the count never came out so')
}
const statusOf = (census: Census, family: string) => census.faces.find(face => face.family === family)?.status

/** A WOFF file of a font, its tables packed. */
function woff(font: Uint8Array): Uint8Array {
  const data = new DataView(font.buffer, font.byteOffset, font.byteLength)
  const count = data.getUint16(4)
  const tables = Array.from({ length: count }, (_, index) => {
    const at = 12 + index * 16
    const raw = font.subarray(data.getUint32(at + 8), data.getUint32(at + 8) + data.getUint32(at + 12))
    const packed = zlibSync(raw)
    return {
      tag: data.getUint32(at),
      checksum: data.getUint32(at + 4),
      size: raw.length,
      bytes: packed.length < raw.length ? packed : raw,
    }
  })
  const out = new Uint8Array(44 + count * 20 + tables.reduce((sum, table) => sum + ((table.bytes.length + 3) & ~3), 0))
  const to = new DataView(out.buffer)
  ;[0x774f4646, data.getUint32(0), out.length].forEach((value, index) => {
    to.setUint32(index * 4, value)
  })
  to.setUint16(12, count)
  to.setUint32(16, font.length)
  let offset = 44 + count * 20
  tables.forEach(({ tag, checksum, size, bytes }, index) => {
    ;[tag, offset, bytes.length, size, checksum].forEach((value, field) => {
      to.setUint32(44 + index * 20 + field * 4, value)
    })
    out.set(bytes, offset)
    offset += (bytes.length + 3) & ~3
  })
  return out
}

describe('font files from outside', () => {
  it('are read packed and unpacked, and are the same face', async () => {
    const plain = await checkSingleFont(karla)
    expect(plain.face).toMatchObject({ family: 'Karla', style: 'Regular', source: 'added' })
    const unpacked = await checkSingleFont(woff(karla))
    expect(unpacked.face.measures).toEqual(plain.face.measures)
    const second = await checkSingleFont(new Uint8Array(await compress(karla)))
    expect(second.face).toMatchObject({ family: 'Karla', measures: plain.face.measures })
  })

  it.each<[string, (font: Uint8Array) => Uint8Array, RegExp]>([
    ['nothing', () => new Uint8Array(0), /not a TrueType/],
    ['a picture', () => Uint8Array.from([0x89, 0x50, 0x4e, 0x47, ...new Array<number>(200).fill(0)]), /not a TrueType/],
    ['a file that is cut off', font => font.slice(0, 400), /outside of it/],
    [
      'a collection of nothing',
      () => Uint8Array.from([0x74, 0x74, 0x63, 0x66, ...new Array<number>(200).fill(0)]),
      /holds 0 faces; from one to 64 are taken/,
    ],
    [
      'tables beyond the end',
      font => {
        const bad = Uint8Array.from(font)
        new DataView(bad.buffer).setUint32(12 + 8, 0x7fffffff)
        return bad
      },
      /outside of it/,
    ],
    [
      'more tables than there can be',
      font => {
        const bad = Uint8Array.from(font)
        new DataView(bad.buffer).setUint16(4, 60000)
        return bad
      },
      /not sound/,
    ],
    [
      'a WOFF that swells',
      font => {
        const bad = woff(font)
        new DataView(bad.buffer).setUint32(16, 0x7fffffff)
        return bad
      },
      /not sound/,
    ],
    [
      'a WOFF that is garbled',
      font => {
        const bad = woff(font)
        bad.fill(7, 44 + new DataView(bad.buffer).getUint16(12) * 20)
        return bad
      },
      /cannot be unpacked|not sound|outside|lacks/,
    ],
    [
      'a WOFF2 that is garbled',
      () => {
        const bad = new Uint8Array(300).fill(9)
        bad.set([0x77, 0x4f, 0x46, 0x32])
        new DataView(bad.buffer).setUint32(16, 1000)
        return bad
      },
      /cannot be unpacked/,
    ],
    [
      'a head without its mark',
      font => {
        const bad = Uint8Array.from(font)
        const data = new DataView(bad.buffer)
        for (let at = 12; at < 12 + data.getUint16(4) * 16; at += 16)
          if (data.getUint32(at) === 0x68656164) data.setUint32(data.getUint32(at + 8) + 12, 0)
        return bad
      },
      /head/,
    ],
  ])('%s: refused with a sentence, and nothing is added', async (_name, make, word) => {
    await expect(checkSingleFont(make(karla))).rejects.toThrow(word)
    const response = await fetch(`${base}/api/faces?name=bad.ttf`, {
      method: 'POST',
      body: make(karla) as Uint8Array<ArrayBuffer>,
    })
    expect(response.status).toBe(422)
    expect(await messageOf(response)).toMatch(/It was not added\.$/)
    expect(await knex('added_faces').first('hash')).toBeUndefined()
  })

  it('say whether they are the family that was asked for', () => {
    const face = { family: 'Karla', style: 'Bold', fullName: 'Karla Bold' }
    expect(isFamily(face, 'karla')).toEqual({ same: true, said: 'it is Karla Bold' })
    expect(isFamily(face, 'Karla Bold').same).toBe(true)
    expect(isFamily(face, 'Karla Pro')).toMatchObject({
      same: false,
      said: expect.stringContaining('the same name but for'),
    })
    expect(isFamily(face, 'Carla').said).toContain('written a little otherwise')
    expect(isFamily(face, 'Brannock').said).toBe('it calls itself Karla Bold, not Brannock')
  })

  it('are renamed without harm', async () => {
    const renamed = renamedFont(karla, 'Brannock', 'SemiBold Italic', 'Some licence')
    checkTables(renamed)
    expect((await checkSingleFont(renamed)).face).toMatchObject({
      family: 'Brannock',
      style: 'SemiBold Italic',
      licence: 'Some licence',
    })
    expect(() => unpackWoff(new Uint8Array(10))).toThrow('cut off')
  })
})

describe('absent faces', () => {
  it('come from the package, from a file and from the supplier; the file of the document stays as it was', async () => {
    const id = await added(galleyMenu(), 'menu.odg')
    const before = await counted(id, census => census.characters > 0)
    expect(statusOf(before, 'Brannock')).toBe('absent')
    const carried = await get<{ path: string; from: string; face: { family: string; embedding: string } }[]>(
      `/api/documents/${id}/fonts`,
    )
    expect(carried).toMatchObject([
      { path: 'Fonts/Kalam.ttf', from: 'package', face: { family: 'Kalam', embedding: 'installable' } },
    ])
    // It is in the library already: nothing is added twice.
    expect(
      await (await send('POST', `/api/documents/${id}/fonts`, { paths: ['Fonts/Kalam.ttf'] })).json(),
    ).toMatchObject({ added: 0 })
    expect((await send('POST', `/api/documents/${id}/fonts`, { paths: ['Fonts/None.ttf'] })).status).toBe(404)

    const tolmere = renamedFont(karla, 'Tolmere Script', 'Regular', 'Ours')
    const look = await fetch(`${base}/api/faces?check=yes&name=t.ttf&for=Tolmere%20Script`, {
      method: 'POST',
      body: tolmere as Uint8Array<ArrayBuffer>,
    })
    expect(await look.json()).toMatchObject({
      added: 0,
      family: { same: true },
      face: { family: 'Tolmere Script', licence: 'Ours' },
    })
    const stored = await fetch(`${base}/api/faces?name=t.ttf`, {
      method: 'POST',
      body: tolmere as Uint8Array<ArrayBuffer>,
    })
    expect(stored.status).toBe(201)
    const { face } = (await stored.json()) as { face: { hash: string } }
    expect(statusOf(await counted(id, census => statusOf(census, 'Tolmere Script') === 'present'), 'Brannock')).toBe(
      'absent',
    )
    expect(new Uint8Array(await (await fetch(`${base}/api/faces/${face.hash}`)).arrayBuffer())).toEqual(tolmere)

    const shop = await get<{
      supplier: string
      offers: { id: string; family: string; price: number; weights: string[] }[]
    }>('/api/supplier?query=Brannock')
    expect(shop.offers).toMatchObject([{ id: 'brannock', family: 'Brannock' }])
    expect(shop.offers[0]!.price).toBe(18 * shop.offers[0]!.weights.length)
    expect((await send('POST', '/api/supplier/brannock')).status).toBe(201)
    expect((await send('POST', '/api/supplier/nothing')).status).toBe(404)
    await counted(id, census => statusOf(census, 'Brannock') === 'present')
    expect(new Uint8Array(await (await fetch(`${base}/api/documents/${id}/file`)).arrayBuffer())).toEqual(galleyMenu())

    // Set in it, exported with it, and absent again when it is taken away.
    expect((await send('POST', `/api/documents/${id}/handoff`, { as: 'pdf' })).status).toBe(200)
    expect((await send('DELETE', `/api/faces/${face.hash}`)).status).toBe(200)
    expect((await send('DELETE', `/api/faces/${face.hash}`)).status).toBe(404)
    await counted(id, census => statusOf(census, 'Tolmere Script') === 'absent')
    expect(offers('').length).toBeGreaterThan(3)
    expect(delivery('nothing')).toBeNull()
  })

  it('are shown by stand-ins of the document before those of its folder before the desk’s', async () => {
    const id = await added(sailingGuide(), 'stand-ins.odt')
    const shownBy = (census: Census) => census.faces.find(face => face.family === 'Skerrow')?.standIn
    await counted(id, census => census.characters > 0)
    const { id: folder } = (await (await send('POST', '/api/folders', { name: 'House' })).json()) as { id: string }
    await send('POST', `/api/documents/${id}/folder`, { folder })
    const put = (level: string, to: string | null, family = 'Skerrow', script = 'any') =>
      send('PUT', `/api/documents/${id}/stand-ins`, { level, family, script, to })
    expect((await put('desk', 'Work Sans', '')).status).toBe(200)
    await counted(id, census => shownBy(census) === 'Work Sans Regular')
    await put('folder', 'Jost')
    await counted(id, census => shownBy(census) === 'Jost Regular')
    await put('document', 'Inter')
    await counted(id, census => shownBy(census) === 'Inter Regular')
    expect(await get(`/api/documents/${id}/stand-ins`)).toEqual({
      document: [{ family: 'Skerrow', script: 'any', to: 'Inter' }],
      folder: [{ family: 'Skerrow', script: 'any', to: 'Jost' }],
      house: [],
      desk: [{ family: '', script: 'any', to: 'Work Sans' }],
    })
    await put('document', null)
    await counted(id, census => shownBy(census) === 'Jost Regular')
    const refused = await put('document', 'Nowhere')
    expect([refused.status, await messageOf(refused)]).toEqual([
      422,
      '“Nowhere” is not in the library, so it cannot stand in. Nothing was changed.',
    ])
    expect(new Uint8Array(await (await fetch(`${base}/api/documents/${id}/file`)).arrayBuffer())).toEqual(
      sailingGuide(),
    )
    await put('folder', null)
    await put('desk', null, '')
  })

  it('come along in a zip: documents go on the shelf, fonts are offered, the rest is told', async () => {
    const zip = zipSync({
      'job/menu.odg': galleyMenu(),
      'job/guide.odt': sailingGuide(),
      'job/fonts/Tolmere.ttf': renamedFont(karla, 'Tolmere Script', 'Regular', 'Ours'),
      'job/fonts/broken.otf': new Uint8Array(50),
      'job/read me.txt': new TextEncoder().encode('hello'),
    })
    const response = await fetch(`${base}/api/documents?name=job.zip`, {
      method: 'POST',
      body: zip as Uint8Array<ArrayBuffer>,
    })
    expect(response.status).toBe(201)
    const { id, left } = (await response.json()) as { id: string; left: { what: string }[] }
    expect(left.map(each => each.what).join('; ')).toMatch(
      /font files came along: .*Tolmere Script Regular.*read me\.txt: neither document nor font/,
    )
    const carried = await get<{ path: string; from: string; problem: string; face: { family: string } | null }[]>(
      `/api/documents/${id}/fonts`,
    )
    expect(carried.find(font => font.path.endsWith('Tolmere.ttf'))).toMatchObject({
      from: 'zip',
      problem: '',
      face: { family: 'Tolmere Script' },
    })
    expect(carried.find(font => font.path.endsWith('broken.otf'))!.problem).toContain('It was not added.')
    expect(
      await (await send('POST', `/api/documents/${id}/fonts`, { paths: ['job/fonts/Tolmere.ttf'] })).json(),
    ).toMatchObject({ added: 1 })
    const empty = await fetch(`${base}/api/documents?name=empty.zip`, {
      method: 'POST',
      body: zipSync({ 'a.txt': new Uint8Array(3) }) as Uint8Array<ArrayBuffer>,
    })
    expect([empty.status, await messageOf(empty)]).toEqual([
      422,
      'This zip holds no text, presentation, drawing or PDF. Nothing was kept.',
    ])
  })
})

describe('recasting, wishes and records', () => {
  it('stores one version with its plan, in words, as CSV, PDF and pictures', async () => {
    const id = await added(sailingGuide(), 'recast.odt')
    const request = {
      wishes: [{ type: 'recast', find: { words: { text: 'Ossay' } }, change: { words: 'Ossey' } }],
    }
    const response = await send('POST', `/api/documents/${id}/changes`, { base: 1, request })
    expect(response.status).toBe(200)
    expect(await response.json()).toMatchObject({ version: { number: 2, madeBy: 'change' } })
    const record = await get<{ sentences: string[]; places: number }>(`/api/documents/${id}/record`)
    expect(record).toMatchObject({ sentences: ['Find “Ossay” in the whole document, and write “Ossey”.'] })
    const csv = await (await fetch(`${base}/api/documents/${id}/record-csv?version=2`)).text()
    expect(csv.split('\r\n')[0]).toBe('what,where,count,characters,before,after,remark')
    expect(csv.split('\r\n').filter(line => line.startsWith('place,')).length).toBe(record.places)
    expect(csv).toContain('wish,,,,,"Find “Ossay” in the whole document')
    expect((await fetch(`${base}/api/documents/${id}/record-pdf?version=2`)).headers.get('content-type')).toBe(
      'application/pdf',
    )
    const pictures = await Promise.all(
      [1, 2].map(async version =>
        (await fetch(`${base}/api/documents/${id}/page-picture?version=${version}&page=3`)).text(),
      ),
    )
    expect(pictures.every(svg => svg.startsWith('<svg'))).toBe(true)
    expect((await fetch(`${base}/api/documents/${id}/page-picture?version=2&page=900`)).status).toBe(404)
    expect(
      (await get<{ document: string; number: number }[]>('/api/records')).some(
        each => each.document === id && each.number === 2,
      ),
    ).toBe(true)
    expect((await fetch(`${base}/api/documents/${id}/record-csv?version=1`)).status).toBe(404)
    expect((await send('POST', `/api/documents/${id}/changes`, { base: 1, request })).status).toBe(409)
    const nothing = await send('POST', `/api/documents/${id}/changes`, { base: 2, request })
    expect([nothing.status, await messageOf(nothing)]).toEqual([422, expect.stringContaining('Nothing was changed.')])
  })

  it('keeps wishes by name', async () => {
    const request = { wishes: [{ type: 'recast', find: { words: { text: 'a' } } }] }
    const { id } = (await (await send('POST', '/api/kept/wish', { name: 'Short', data: request })).json()) as {
      id: string
    }
    const again = (await (await send('POST', '/api/kept/wish', { name: 'Short', data: request })).json()) as {
      id: string
    }
    expect(
      (await get<{ id: string; name: string }[]>('/api/kept/wish')).filter(each => each.name === 'Short'),
    ).toMatchObject([{ id: again.id }])
    expect((await send('DELETE', `/api/kept/wish/${id}`)).status).toBe(404)
    expect((await send('DELETE', `/api/kept/wish/${again.id}`)).status).toBe(200)
  })

  it('counts faces, sizes and colours over all documents', async () => {
    const id = await added(sailingGuide(), 'counted.odt')
    await counted(id, census => census.characters > 0)
    const census =
      await get<
        Record<
          'families' | 'sizes' | 'colors',
          { value: string; status: string; count: number; documents: { id: string; count: number }[] }[]
        >
      >('/api/census')
    const skerrow = census.families.find(each => each.value === 'Skerrow')!
    expect(skerrow.documents.some(each => each.id === id && each.count > 0)).toBe(true)
    expect(skerrow.count).toBe(skerrow.documents.reduce((sum, each) => sum + each.count, 0))
    expect(census.sizes.length).toBeGreaterThan(3)
    expect(
      census.colors.some(
        each => /^#[0-9a-f]{6}$/.test(each.value) && each.documents.some(document => document.id === id),
      ),
    ).toBe(true)
  })
})
