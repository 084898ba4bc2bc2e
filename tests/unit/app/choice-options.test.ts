import { describe, expect, it } from 'vitest'
import { createCommentVNode, Fragment, h } from 'vue'
import { optionsIn } from '../../../app/kit/choice-options'

describe('what can be chosen', () => {
  it('is read off options: value, text, and whether it is disabled', () => {
    expect(
      optionsIn([
        h('option', { value: 'a' }, 'First'),
        h('option', { value: 2, disabled: true }, 'Second'),
        h('option', { value: null }, 'None'),
      ]),
    ).toEqual([
      { value: 'a', title: 'First', disabled: false },
      { value: 2, title: 'Second', disabled: true },
      { value: null, title: 'None', disabled: false },
    ])
  })

  it('has its text for a value where none is given, white space as one space', () => {
    expect(optionsIn([h('option', null, ' in \n  points ')])).toEqual([
      { value: 'in points', title: 'in points', disabled: false },
    ])
  })

  it('takes an attribute without a value as set, and one that is false or missing as not', () => {
    const disabled = ['', false, undefined].map(each => optionsIn([h('option', { disabled: each }, 'x')])[0]!.disabled)
    expect(disabled).toEqual([true, false, false])
  })

  it('finds options of lists, and passes over whatever else stands there', () => {
    const list = h(Fragment, null, [h('option', { value: 1 }, ['heading ', '1']), createCommentVNode('v-if')])
    expect(optionsIn([createCommentVNode('none'), list, h('p', null, 'x')]).map(each => each.title)).toEqual([
      'heading 1',
    ])
    expect(optionsIn([h(Fragment, null, [])])).toEqual([])
  })
})
