import { describe, expect, it } from 'vitest'
import { counted, grouped, pageWords, percentage, settledWords } from '../../../app/desk/words'

describe('figures as the desk writes them', () => {
  it('numbers have their thousands set apart', () => {
    expect([grouped(0), grouped(41_208), grouped(1_000_000)]).toEqual(['0', '41,208', '1,000,000'])
  })

  it.each([
    [0, '0.0 %'],
    [0.00001, '–'],
    [0.0005, '0.1 %'],
    [0.581, '58.1 %'],
    [1, '100.0 %'],
  ])('a share of %d is %s', (share, words) => {
    expect(percentage(share)).toBe(words)
  })

  it('what is not wholly settled is never rounded up to all', () => {
    expect([settledWords(1), settledWords(0.99999), settledWords(0.8741), settledWords(0)]).toEqual([
      '100 %',
      '99.9 %',
      '87.4 %',
      '0.0 %',
    ])
  })

  it('one thing is not many', () => {
    expect([counted(1, 'place'), counted(2, 'place'), counted(2, 'family', 'families')]).toEqual([
      '1 place',
      '2 places',
      '2 families',
    ])
  })

  it.each<[number[], number, string]>([
    [[], 9, 'masters alone'],
    [[0, 1, 2], 3, 'all pages'],
    [[0], 1, '1'],
    [[1, 2, 3, 8], 20, '2–4, 9'],
    [[0, 2, 4, 6, 8, 10], 20, '1, 3, 5 … 11'],
  ])('pages %j of %i', (pages, all, words) => {
    expect(pageWords(pages, all)).toBe(words)
  })
})
