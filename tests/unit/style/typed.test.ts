import { describe, expect, it } from 'vitest'
import {
  leadingAs,
  leadingKind,
  leadingPoints,
  lengthUnits,
  saidLength,
  saidTabs,
  typedLeading,
  typedLength,
  typedTabs,
} from '../../../core/style/typed'

describe('what is typed for values of type', () => {
  it.each([
    ['25', 'mm', 70.866],
    ['25', 'pt', 25],
    ['2,5 cm', 'mm', 70.866],
    ['1in', 'pt', 72],
    ['-3 mm', 'pt', -8.504],
    [' 12 pt ', 'mm', 12],
    ['1 pc', 'mm', 12],
  ] as const)('a length: %s, without a unit in %s', (text, bare, expected) => {
    expect(typedLength(text, bare)).toBeCloseTo(expected, 3)
  })

  it.each(['', 'wide', '1.2.3', '12 px pt', '1,2,3 mm', 'mm'])('no length: “%s”', text => {
    expect(typedLength(text)).toBeNull()
  })

  it('tells lengths in every unit, to a hundredth of a millimetre or finer', () => {
    expect([saidLength(72), saidLength(0), saidLength(-8.504), saidLength(-0.001)]).toEqual([
      '25.4 mm',
      '0 mm',
      '-3 mm',
      '0 mm',
    ])
    expect(lengthUnits.map(unit => saidLength(100, unit))).toEqual(['35.28 mm', '3.528 cm', '1.3889 in', '100 pt'])
    for (const unit of lengthUnits) expect(typedLength(saidLength(123.4, unit), unit)).toBeCloseTo(123.4, 1)
  })

  it('reads tab stops of every kind, and shows them so that they can be read again', () => {
    const read = typedTabs('36; 4 cm right .; 6 cm at ,;  -1,5 mm centred')
    const tabs = 'tabs' in read ? read.tabs! : []
    expect(tabs.map(each => [Math.round(each.position * 100) / 100, each.type, each.char, each.leader])).toEqual([
      [36, 'left', undefined, undefined],
      [113.39, 'right', undefined, '.'],
      [170.08, 'char', ',', undefined],
      [-4.25, 'center', undefined, undefined],
    ])
    expect(saidTabs(tabs)).toBe('36 pt; 113.39 pt right .; 170.08 pt at ,; -4.25 pt center')
    expect(saidTabs((typedTabs(saidTabs(tabs)) as { tabs: typeof tabs }).tabs)).toBe(saidTabs(tabs))
    expect(saidTabs([{ position: 10, type: 'char' }])).toBe('10 pt at .')
  })

  it('takes nothing for no stops, and says which part is none', () => {
    expect(typedTabs('  ')).toEqual({ tabs: null })
    expect(typedTabs('36 pt; wide')).toEqual({ wrong: 'wide' })
    expect(typedTabs('36 pt; 1.2.3 right')).toEqual({ wrong: '1.2.3 right' })
    expect(typedTabs('36 pt middle')).toEqual({ wrong: '36 pt middle' })
  })

  it('says one leading in four ways', () => {
    expect(['normal', '100%', '140%', '14pt', '0.5cm'].map(leadingKind)).toEqual([
      'face',
      'solid',
      'percent',
      'points',
      'points',
    ])
    expect([leadingPoints('15pt', 10), leadingPoints('140%', 10), leadingPoints('normal', 10)]).toEqual([15, 14, 12])
    expect(leadingAs('face', '14pt', 10)).toBe('normal')
    expect(leadingAs('solid', '14pt', 10)).toBe('100%')
    expect(leadingAs('percent', '14pt', 10)).toBe('140%')
    expect(leadingAs('points', '135%', 10.5)).toBe('14.18pt')
  })

  it('reads a leading as it is said', () => {
    expect(typedLeading('14', 'points')).toBe('14pt')
    expect(typedLeading('5 mm', 'points')).toBe('14.17pt')
    expect(typedLeading('137,5', 'percent')).toBe('137.5%')
    expect([typedLeading('0', 'percent'), typedLeading('-2', 'points'), typedLeading('x', 'points')]).toEqual([
      null,
      null,
      null,
    ])
  })
})
