import { describe, expect, it } from 'vitest'
import { houseFromPair } from '../../core/house/make-house'
import { harbourNotice } from '../../demo/harbour-notice'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import type { ProofCounts } from '../../shared/api'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { runStudio } from './studio'

const studio = runStudio(76, 'morphene_looking_test')
const desk = studio.browser()

describe('a proof', () => {
  it('runs the checks of the desk, and those of the house from the version on that says so', async () => {
    const { id } = await addDocument(actingAs(studio.knex()), {
      fileName: 'Notice.odt',
      kind: 'text',
      signed: false,
      bytes: harbourNotice(),
    })
    const empty = async () => {
      const { checks } = await desk.get<ProofCounts>(`/api/documents/${id}/proof`)
      return checks.find(each => each.check === 'empty-paragraph')?.count ?? 0
    }
    expect((await desk.get<{ id: string }[]>('/api/checks')).map(each => each.id)).toContain('empty-paragraph')
    expect(await empty()).toBe(1)
    const house = houseFromPair('Checked', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 })
    const made = await desk.ask('POST', '/api/houses', { house, trialUntil: null })
    const { id: houseId } = (await made.json()) as { id: string }
    const issue = async () => {
      const { revision } = await desk.get<{ revision: number }>(`/api/houses/${houseId}`)
      expect(await desk.status('POST', `/api/houses/${houseId}/issue`, { revision })).toBe(200)
    }
    await issue()
    expect(await desk.status('PUT', `/api/documents/${id}/house`, { house: houseId })).toBe(200)
    expect(await empty()).toBe(1)
    const { revision } = await desk.get<{ revision: number }>(`/api/houses/${houseId}`)
    const checks = { 'empty-paragraph': { runs: false, limits: {} } }
    const kept = { house: { ...house, checks }, trialUntil: null, revision }
    expect(await desk.status('PUT', `/api/houses/${houseId}`, kept)).toBe(200)
    expect(await empty()).toBe(1)
    await issue()
    expect(await empty()).toBe(0)
    await desk.status('PUT', `/api/documents/${id}/house`, { house: null })
    expect(await desk.status('DELETE', `/api/houses/${houseId}`)).toBe(200)
  })

  it('holds faces against what the document is made for, and looks again when that is said', async () => {
    const { id } = await addDocument(actingAs(studio.knex()), {
      fileName: 'Slab.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({
        body: '<text:p text:style-name="P">Wait and see</text:p>',
        faces: face('Monoton'),
        automatic: paragraphStyle('P', 'style:font-name="Monoton"'),
      }),
    })
    const unlicensed = async () =>
      (await desk.get<ProofCounts>(`/api/documents/${id}/proof`)).checks.find(each => each.check === 'unlicensed')
    expect(await unlicensed()).toBeUndefined()
    expect(await desk.status('PUT', `/api/documents/${id}/uses`, { uses: ['print', 'web page'] })).toBe(200)
    expect(await unlicensed()).toMatchObject({ count: 2, severity: 'warning' })
    const licence = { families: ['Monoton'], uses: ['print'], seats: null, until: '2020-01-01', holder: '' }
    const kept = { heading: '', name: 'Old set', data: licence }
    expect(await desk.status('POST', '/api/kept/licence', kept)).toBe(201)
    expect(await unlicensed()).toMatchObject({ count: 1, severity: 'error' })
  })
})
