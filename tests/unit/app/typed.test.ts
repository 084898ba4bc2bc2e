import { describe, expect, it } from 'vitest'
import type { DirectiveBinding } from 'vue'
import { typed } from '../../../app/kit/typed'

/** A field as browsers have it, as far as the directive asks. */
function fieldOf(value: string | number | null) {
  const owner: { activeElement: unknown } = { activeElement: null }
  let change = () => undefined as void
  const field = {
    value: '',
    ownerDocument: owner,
    addEventListener: (_: string, listener: () => void) => {
      change = listener
    },
  }
  const hooks = typed as unknown as Record<'beforeMount' | 'updated', (field: object, binding: object) => void>
  const binding = (now: string | number | null) => ({ value: now }) as Partial<DirectiveBinding>
  hooks.beforeMount(field, binding(value))
  return {
    field,
    enter: () => (owner.activeElement = field),
    leave: () => {
      if (owner.activeElement === field) change()
      owner.activeElement = null
    },
    drawAgain: (now: string | number | null) => hooks.updated(field, binding(now)),
  }
}

describe('a field that keeps what is being typed', () => {
  it('shows its value, and a new one where nobody types', () => {
    const { field, drawAgain } = fieldOf(11)
    expect(field.value).toBe('11')
    drawAgain(12)
    expect(field.value).toBe('12')
    drawAgain(null)
    expect(field.value).toBe('')
  })

  it('keeps what is typed while something else makes it draw itself again', () => {
    const { field, enter, leave, drawAgain } = fieldOf(11)
    enter()
    drawAgain(11)
    field.value = '10.5'
    drawAgain(11)
    drawAgain(13)
    expect(field.value).toBe('10.5')
    // Once it is taken, what it came to is shown.
    leave()
    drawAgain('10.5 pt')
    expect(field.value).toBe('10.5 pt')
  })

  it('shows what a value came to though one is still in the field, once it was taken', () => {
    const { field, enter, leave, drawAgain } = fieldOf(11)
    enter()
    field.value = '1000'
    leave()
    enter()
    drawAgain(900)
    expect(field.value).toBe('900')
  })
})
