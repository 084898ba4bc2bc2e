import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { FaceRecord } from '../../core/font/face'
import { projectFolder } from '../../server/library/files'
import { runStudio } from './studio'

const studio = runStudio(77, 'morphene_variable_test')
const desk = studio.browser()
const file = readFileSync(
  join(projectFolder(), 'node_modules/@fontsource-variable/fraunces/files/fraunces-latin-full-normal.woff2'),
)
const send = async () => {
  const answer = await fetch(`${studio.base}/api/faces?name=fraunces.woff2`, { method: 'POST', body: file })
  return [answer.status, ((await answer.json()) as { added: number }).added]
}
const family = async (name: string) => (await desk.get<FaceRecord[]>('/api/faces')).filter(each => each.family === name)

describe('a variable file in the library', () => {
  it('is there as the faces that it names, once', async () => {
    expect(await send()).toEqual([201, 6])
    expect(await send()).toEqual([200, 0])
    expect((await family('Fraunces')).map(each => each.weight)).toEqual([100, 300, 400, 600, 700, 900])
  })

  it('gives a face of its own at any place on its axes, under a name that is free', async () => {
    const faces = await family('Fraunces')
    const variable = faces.find(each => each.axes.length > 0)!
    const path = `/api/faces/${variable.hash}/instance`
    const made = { family: 'Fraunces', style: 'Medium', place: { wght: 500 } }
    expect(await desk.status('POST', path, made)).toBe(201)
    expect((await family('Fraunces')).find(each => each.weight === 500)).toMatchObject({
      style: 'Medium',
      source: 'added',
    })
    expect(await desk.says('POST', path, { ...made, style: 'Book', place: { wght: 500, opsz: 40 } })).toEqual([
      409,
      expect.stringContaining('has a face of weight 500 already, Medium: give this one a family name of its own'),
    ])
    const large = { family: 'Fraunces 72pt', style: 'Medium', place: { wght: 500, opsz: 72 } }
    expect(await desk.status('POST', path, large)).toBe(201)
    expect(await family('Fraunces 72pt')).toHaveLength(1)
    expect(await desk.says('POST', path, { ...large, place: { wght: 1000 } })).toEqual([
      422,
      expect.stringContaining('Weight goes from 100 to 900. Nothing was added.'),
    ])
    expect(await desk.status('POST', path, { ...large, place: { width: 100 } })).toBe(400)
    expect(await desk.status('POST', path, { ...large, family: ' ' })).toBe(400)
    expect(await desk.status('POST', `/api/faces/${'a'.repeat(64)}/instance`, large)).toBe(404)
    const fixed = faces.find(each => each.axes.length === 0)!
    expect(await desk.says('POST', `/api/faces/${fixed.hash}/instance`, large)).toEqual([
      422,
      expect.stringContaining('one form'),
    ])
  })
})
