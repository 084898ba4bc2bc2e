import { describe, expect, it } from 'vitest'
import { inkWords, readInk } from '../../../core/house/ink-words'

describe('what a colour is printed with', () => {
  it('is four shares in percent, in whatever way they are parted, or a spot ink by its name', () => {
    for (const typed of [
      '10 55 100 30',
      '10/55/100/30',
      '10 %, 55 %, 100 %, 30 %'.replace(/ %/g, '%'),
      ' 10;55;100;30 ',
    ])
      expect(readInk(typed), typed).toEqual({ process: [10, 55, 100, 30] })
    expect(readInk('Quay Green 7')).toEqual({ spot: 'Quay Green 7' })
    expect(readInk('  ')).toBeUndefined()
  })

  it('is nothing where shares are too few, too many or beyond all ink, and where a name is too long', () => {
    for (const typed of ['10 55 100', '10 55 100 30 5', '10 55 100 130', '-1 0 0 0', 'x'.repeat(101)])
      expect(readInk(typed), typed).toBeNull()
  })

  it('reads back what it writes', () => {
    for (const ink of [
      { process: [0, 12.5, 100, 3] as [number, number, number, number] },
      { spot: 'Quay Green' },
      undefined,
    ])
      expect(readInk(inkWords(ink))).toEqual(ink)
  })
})
