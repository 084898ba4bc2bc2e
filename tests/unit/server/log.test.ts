import { isError } from 'h3'
import { describe, expect, it } from 'vitest'
import { asRefusal, refusal } from '../../../server/work/answer'
import { wordsOf } from '../../../server/work/log'

const fromDatabase = () =>
  Object.assign(new Error("insert into `documents` values ('Confidential tariff.odt') - Duplicate entry"), {
    code: 'ER_DUP_ENTRY',
    sql: 'insert into `documents` values (?)',
  })

describe('what goes wrong inside', () => {
  it('is told without what the database was given', () => {
    expect(wordsOf(fromDatabase())).toBe('the database refused: ER_DUP_ENTRY')
    expect([wordsOf(new Error('a thread ended')), wordsOf('odd')]).toEqual(['a thread ended', 'odd'])
  })

  it('is answered by a sentence of the desk’s own, whatever it was', () => {
    const refused = asRefusal(fromDatabase())
    if (!isError(refused)) throw new Error('it is no answer')
    expect([refused.statusCode, refused.unhandled]).toEqual([500, false])
    expect(refused.message).toMatch(/^Something went wrong inside the desk/)
    expect(JSON.stringify(refused)).not.toMatch(/Confidential|insert/)
    // What was meant as an answer stays as it is.
    const meant = refusal(404, 'There is no such version.')
    expect(asRefusal(meant)).toBe(meant)
  })
})
