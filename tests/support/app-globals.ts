import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import * as vue from 'vue'

/* What Nuxt imports by itself, for the checker of tests: the application's own has it from Nuxt. */
declare global {
  const ref: typeof vue.ref
  const shallowRef: typeof vue.shallowRef
  const computed: typeof vue.computed
  const watch: typeof vue.watch
  const nextTick: typeof vue.nextTick
  const markRaw: typeof vue.markRaw
  const reactive: typeof vue.reactive
}

/** What the application has without importing it, for stores that are tried outside of it; a fresh store for each test. */
export function appGlobals($fetch: (path: string, options?: object) => Promise<unknown>): void {
  const { ref, shallowRef, computed, watch, nextTick, markRaw, reactive } = vue
  for (const [name, value] of Object.entries({ ref, shallowRef, computed, watch, nextTick, markRaw, reactive, $fetch }))
    vi.stubGlobal(name, value)
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined })
  setActivePinia(createPinia())
}
