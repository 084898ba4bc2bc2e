import { isError } from 'h3'
import { describe, expect, it } from 'vitest'
import { PagePictures } from '../../../server/work/pictures'
import { Rate } from '../../../server/work/rate'
import { refuseWhenFull, roomWords } from '../../../server/work/room'

const megabyte = 1048576
/** What a call was refused with. */
async function refusalOf(call: Promise<unknown>): Promise<{ status: number; message: string; data: unknown } | null> {
  try {
    await call
    return null
  } catch (error) {
    if (!isError(error)) throw error
    return { status: error.statusCode, message: error.message, data: error.data }
  }
}

describe('how much anybody may ask', () => {
  it('has an end, said with when to go on, for each alone and for looking and changing apart', async () => {
    const rate = new Rate(0.005)
    for (let count = 0; count < 2; count++) await rate.count('one', 'change')
    const refused = await refusalOf(rate.count('one', 'arrange'))
    expect(refused).toMatchObject({ status: 429, data: { retry: expect.any(Number) as number } })
    expect(refused!.message).toMatch(/^More was asked .* ask again in \d+ s\.$/)
    expect((refused!.data as { retry: number }).retry).toBeLessThanOrEqual(10)
    expect(await refusalOf(rate.count('one', 'look'))).toBeNull()
    expect(await refusalOf(rate.count('another', 'change'))).toBeNull()
  })

  it('has none where something in front of the desk counts', async () => {
    const rate = new Rate(null)
    for (let count = 0; count < 2000; count++) await rate.count('one', 'change')
  })

  it('lets through what a person asks for', async () => {
    const rate = new Rate(1)
    for (let count = 0; count < 1000; count++) await rate.count('one', 'look')
    for (let count = 0; count < 300; count++) await rate.count('one', 'change')
  })
})

describe('the room on the disk', () => {
  const room = (bytes: number | null) => () => Promise.resolve(bytes)

  it('is kept free: what would fill it is refused before it is taken', async () => {
    expect(await refusalOf(refuseWhenFull(50 * megabyte, room(250 * megabyte)))).toBeNull()
    const refused = await refusalOf(refuseWhenFull(51 * megabyte, room(250.5 * megabyte)))
    expect(refused).toMatchObject({ status: 507 })
    expect(refused!.message).toContain('only 250 MB left. Nothing was kept')
  })

  it('is told of before it ends, and not where there is enough or nothing is known', async () => {
    expect(await roomWords(room(1023 * megabyte))).toContain('only 1023 MB left')
    expect(await roomWords(room(1024 * megabyte))).toBeNull()
    expect(await roomWords(room(null))).toBeNull()
    expect(await refusalOf(refuseWhenFull(1, room(null)))).toBeNull()
    expect(await roomWords()).toBeNull()
  })
})

describe('pictures of pages', () => {
  const asked = { document: 'd', version: 1, page: 0, setting: undefined }

  it('are drawn once for all who ask for the same, and anew for another page, version or setting', async () => {
    const pictures = new PagePictures()
    let drawn = 0
    const draw = async () => {
      await new Promise(resolve => setTimeout(resolve, 5))
      return `<svg>${++drawn}</svg>`
    }
    const first = await Promise.all([pictures.get(asked, draw), pictures.get(asked, draw)])
    expect(first).toEqual(['<svg>1</svg>', '<svg>1</svg>'])
    expect(await pictures.get({ ...asked }, draw)).toBe('<svg>1</svg>')
    for (const other of [{ page: 1 }, { version: 2 }, { document: 'e' }, { setting: { faces: 'list', standIns: [] } }])
      await pictures.get({ ...asked, ...other }, draw)
    expect(drawn).toBe(5)
  })

  it('that could not be drawn are tried again', async () => {
    const pictures = new PagePictures()
    await expect(pictures.get(asked, () => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect(await pictures.get(asked, () => Promise.resolve('<svg/>'))).toBe('<svg/>')
  })
})
