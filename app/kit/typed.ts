import type { Directive } from 'vue'

/**
 * What a field shows, where it is taken when one leaves the field: `v-typed="value"`. A field that is bound by `:value` loses
 * what is being typed whenever something else makes its component draw itself again; one bound by this keeps it until it is
 * left or taken.
 */
const last = new WeakMap<HTMLInputElement, string>()

function show(field: HTMLInputElement, value: string | number | null | undefined): void {
  field.value = String(value ?? '')
  // As the field has it: colours and numbers are brought into a form of their own.
  last.set(field, field.value)
}

/** Whether somebody is in the field and has typed what nobody took yet. */
const isTyping = (field: HTMLInputElement): boolean =>
  field.ownerDocument.activeElement === field && field.value !== last.get(field)

export const typed: Directive<HTMLInputElement, string | number | null | undefined> = {
  beforeMount(field, { value }) {
    show(field, value)
    // Before whoever takes it: what comes of that is drawn at once, and is to be shown.
    field.addEventListener('change', () => last.set(field, field.value), { capture: true })
  },
  updated(field, { value }) {
    if (!isTyping(field)) show(field, value)
  },
}
