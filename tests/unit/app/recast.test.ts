import { describe, expect, it } from 'vitest'
import { emptyRecast, formOf, wishOf } from '../../../app/stages/recast/recast-form'
import { recastSchema, recastSentence } from '../../../core/change/recast/wish'

const request = (
  form: Partial<ReturnType<typeof emptyRecast>>,
  ranges: Parameters<typeof wishOf>[1] = [],
  spot: Parameters<typeof wishOf>[2] = null,
) => recastSchema.parse(wishOf({ ...emptyRecast(), ...form }, ranges, spot))

describe('the form of a recast', () => {
  it('leaves out what is empty', () => {
    expect(request({ text: 'ferry' })).toEqual({
      find: {
        words: { text: 'ferry', expression: false, matchCase: false, wholeWords: false },
        look: {},
        scope: { kind: 'document' },
      },
      change: {},
      colors: [],
      type: 'recast',
    })
  })
  it('says where it looks, and never narrows by itself', () => {
    const selected = [{ part: 'content.xml', node: 7, from: 1, to: 4 }]
    expect(request({ text: 'a' }, selected).find.scope).toEqual({ kind: 'document' })
    expect(request({ text: 'a', scope: 'ranges' }, selected).find.scope).toEqual({ kind: 'ranges', ranges: selected })
    expect(request({ text: 'a', scope: 'ranges' }).find.scope).toEqual({ kind: 'document' })
    expect(request({ text: 'a', scope: 'story' }, [], { part: 'content.xml', node: 7 }).find.scope).toEqual({
      kind: 'story',
      part: 'content.xml',
      node: 7,
    })
    expect(request({ text: 'a', scope: 'pages', from: 3, to: null }).find.scope).toEqual({
      kind: 'pages',
      from: 2,
      to: 2,
    })
  })
  it('comes back from a kept wish as it was', () => {
    const wish = request({
      text: 'x',
      expression: true,
      family: 'Jost',
      face: 'Bold',
      status: 'present',
      sizeLeast: 9,
      weightMost: 700,
      trackingLeast: 5,
      italic: 'no',
      color: '#112233',
      case: 'uppercase',
      underlined: 'yes',
      raised: 'no',
      paragraphStyle: 'Body',
      characterStyle: 'Strong',
      role: 'body',
      language: 'en',
      script: 'Latin',
      stray: 'yes',
      place: 'table',
      scope: 'pages',
      from: 2,
      to: 4,
      replaceWords: true,
      newWords: '',
      newFamily: 'Inter',
      newFace: 'Medium',
      newSize: 110,
      newSizeIs: 'percent',
      newWeight: 500,
      newItalic: 'yes',
      newTracking: 10,
      newColor: '#445566',
      newBackground: 'none',
      newCase: 'none',
      newUnderlined: 'no',
      newLeading: 14,
      newLeadingIs: 'points',
      newLanguage: 'de-DE',
      newParagraphStyle: 'Head',
      newCharacterStyle: 'none',
      settle: true,
      colors: [{ from: '#111111', to: '#222222', kinds: ['text'] }],
    })
    expect(recastSchema.parse(wishOf(formOf(wish), [], null))).toEqual(wish)
    expect(wish.change).toMatchObject({
      words: '',
      characterStyle: null,
      settle: true,
      size: { percent: 110 },
      leading: { points: 14 },
    })
    expect(recastSentence(wish)).toContain('on pages 2 to 4, delete it, set it in Inter Medium, at 110 % of its size')
  })
  it('does not take a colour for itself, nor one that is not chosen yet', () => {
    expect(
      request({
        colors: [
          { from: '#111111', to: '#111111', kinds: ['text'] },
          { from: '#111111', to: '', kinds: ['text'] },
        ],
      }).colors,
    ).toEqual([])
    expect(
      recastSchema.safeParse(
        wishOf({ ...emptyRecast(), colors: [{ from: '#111111', to: 'red', kinds: ['text'] }] }, [], null),
      ).success,
    ).toBe(false)
  })
})
