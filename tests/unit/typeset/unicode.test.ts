import { existsSync, readFileSync } from 'node:fs'
import bidiFactory from 'bidi-js'
import { describe, expect, it } from 'vitest'
import { breaksOf } from '../../../core/typeset/breaks'
import { visualOrder } from '../../../core/typeset/bidi'

const folder = '/usr/share/unicode'
const lines = (file: string) =>
  readFileSync(`${folder}/${file}`, 'utf8')
    .split('\n')
    .map(line => line.replace(/#.*/, '').trim())
    .filter(line => line !== '')

describe('Unicode conformance (Debian package unicode-data)', () => {
  it('the test files are there', () => {
    expect(existsSync(`${folder}/auxiliary/LineBreakTest.txt`) && existsSync(`${folder}/BidiCharacterTest.txt`)).toBe(
      true,
    )
  })

  it('LineBreakTest of UAX #14: all cases', () => {
    const wrong: string[] = []
    let cases = 0
    for (const line of lines('auxiliary/LineBreakTest.txt')) {
      const tokens = line.split(/\s+/)
      let text = ''
      const expected: [number, boolean][] = []
      for (const token of tokens) {
        if (token === '÷' || token === '×') expected.push([text.length, token === '÷'])
        else text += String.fromCodePoint(Number.parseInt(token, 16))
      }
      cases++
      const breaks = breaksOf(text)
      if (expected.some(([at, may]) => at > 0 && breaks[at]! > 0 !== may)) wrong.push(line)
    }
    expect(cases).toBeGreaterThan(7000)
    expect(wrong).toEqual([])
  })

  it('BidiCharacterTest of UAX #9: levels and visual order of all cases', () => {
    const bidi = bidiFactory()
    const wrong: string[] = []
    let cases = 0
    for (const line of lines('BidiCharacterTest.txt')) {
      const [codes, direction, , levels, order] = line.split(';') as [string, string, string, string, string]
      const points = codes.split(' ').map(code => Number.parseInt(code, 16))
      const found = bidi.getEmbeddingLevels(
        String.fromCodePoint(...points),
        direction === '0' ? 'ltr' : direction === '1' ? 'rtl' : 'auto',
      ).levels
      const wanted = levels.split(' ')
      let at = 0
      const shown: { index: number; level: number }[] = []
      let good = true
      points.forEach((point, index) => {
        if (wanted[index] !== 'x') {
          if (found[at] !== Number(wanted[index])) good = false
          shown.push({ index, level: found[at]! })
        }
        at += point > 0xffff ? 2 : 1
      })
      if (
        !good ||
        visualOrder(shown)
          .map(each => each.index)
          .join(' ') !== (order ?? '').trim()
      )
        wrong.push(line)
      cases++
    }
    expect(cases).toBeGreaterThan(90_000)
    expect(wrong.slice(0, 5)).toEqual([])
  })

  it('plain text takes the short way to the same breaks', () => {
    const text = 'Boats (two of them) leave at 7.30, "rain or shine"; 1,200 seats: don\'t  wait.'
    // A word joiner at the end sends the same text through the rules.
    expect([...breaksOf(text)].slice(0, -1)).toEqual([...breaksOf(`${text}\u2060`)].slice(0, text.length))
  })
})
