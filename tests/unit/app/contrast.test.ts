import { beforeAll, describe, expect, it } from 'vitest'
import { useContrast } from '../../../app/stages/styles/editor/use-contrast'
import type { StyleGround } from '../../../core/proof/style-grounds'
import { appGlobals } from '../../support/app-globals'

const ground = (grounds: readonly string[], more: Partial<StyleGround> = {}): StyleGround => ({
  ...{ on: 'plain', grounds, size: 10, weight: 400, characters: 40, page: 0 },
  ...more,
})
/** How a colour is told for a style with these values, of which some were changed, on these grounds. */
const told = (
  values: Readonly<Record<string, string>>,
  grounds: readonly StyleGround[],
  changed: readonly string[] = [],
) =>
  useContrast({
    valueOf: id => values[id],
    isChanged: id => changed.includes(id),
    size: { value: 10 } as never,
    weight: { value: 400 } as never,
    grounds: { value: grounds } as never,
  })

describe('the contrast of a style', () => {
  beforeAll(() => appGlobals(() => Promise.resolve(null)))

  it('is told on white without more, and on anything else with what and where it is', () => {
    const dark = { color: '#333333' }
    expect(told(dark, [ground(['#ffffff'])]).contrasted.value!.words).toBe('12.6 : 1, good')
    expect(told(dark, [ground(['#ffffff']), ground(['#224466'], { page: 3 })]).contrasted.value).toEqual({
      enough: false,
      words: '1.2 : 1, too little for text of this size, on #224466, page 4',
    })
    const picture = ground(['#eeeeee', '#555555'], { on: 'picture', size: 20 })
    expect(told(dark, [picture]).contrasted.value!.words).toBe(
      '1.6 : 1, too little for large text, on a picture, page 1',
    )
  })

  it('goes by a ground of the style’s own while that is changed, and where no text has the style', () => {
    const values = { color: '#333333', background: '#444444' }
    expect(told(values, [ground(['#ffffff'])], ['background']).contrasted.value!.enough).toBe(false)
    expect(told(values, [ground(['#ffffff'])]).contrasted.value!.enough).toBe(true)
    expect(told(values, []).ground.value).toBe('#444444')
  })

  it('takes the colour of a frame for a ground only where the frame is filled with it', () => {
    const framed = { color: '#333333', fillcolor: '#222222' }
    expect(told({ ...framed, fill: 'none' }, []).ground.value).toBe('#ffffff')
    expect(told({ ...framed, fill: 'solid' }, []).ground.value).toBe('#222222')
    expect(told({ color: 'currentcolor' }, []).contrasted.value).toBeNull()
  })
})
