import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DeskProcess } from '../support/desk-process'
import { workWithKills } from '../support/kills'
import { numbersFrom, shuffled } from '../support/seeded'

const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 20
const desk = new DeskProcess(port, port + 5)
beforeAll(() => desk.begin())
afterAll(() => desk.finish())

describe('a desk whose server and database are killed while people work', () => {
  it(
    'loses nothing that was acknowledged, does nothing by halves, and leaves no job hanging',
    { timeout: 300_000 },
    async () => {
      const random = numbersFrom(7)
      const victims = shuffled(['server', 'server', 'database', 'database'] as const, random)
      const { acknowledged, faults } = await workWithKills(desk, victims, random, () => {}, 60_000)
      expect(faults).toEqual([])
      expect(acknowledged).toBeGreaterThan(10)
    },
  )
})
