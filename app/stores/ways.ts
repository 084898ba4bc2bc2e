import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { saidLength, typedLength } from '~~/core/style/typed'
import { usualWays, type Ways } from '~~/shared/ways'
import { useMe } from './me'

/** How whoever is here likes to work: units, what is marked on the sheets, what is pasted. It goes with them. */
export const useWays = defineStore('ways', () => {
  const me = useMe()
  /** What was changed here and may not have come to the server yet. */
  const changed = shallowRef<Partial<Ways>>({})
  const own = computed<Ways>(() => ({ ...usualWays, ...me.me?.ways, ...changed.value }))
  // Whoever presses a key again and again means the last of it.
  const keep = useDebounceFn(() => $fetch('/api/me/ways', { method: 'PUT', body: own.value }).catch(() => null), 400)
  function set(some: Partial<Ways>): void {
    changed.value = { ...changed.value, ...some }
    void keep()
  }
  /** One of the ways, to be read and set. */
  const way = <K extends keyof Ways>(name: K) =>
    computed<Ways[K]>({ get: () => own.value[name], set: value => set({ [name]: value }) })

  /** A place or size on a page, given in points, in the unit of one's own. */
  const said = (points: number) => saidLength(points, own.value.units)
  /** What was typed, in points; null where it is no length. */
  const read = (text: string) => typedLength(text, own.value.units)
  return { own, set, way, said, read }
})
