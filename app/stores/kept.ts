import { defineStore } from 'pinia'
import type { Kept, KeptData, KeptKind } from '~~/shared/kept'
import { sentenceOf } from './desk'

/** What is kept of a kind: fetched once, changed here and on the server together. */
function kept<K extends KeptKind>(kind: K) {
  const list = shallowRef<readonly Kept<K>[]>([])
  const message = ref('')
  const path = `/api/kept/${encodeURIComponent(kind)}`
  let fetching: Promise<void> | null = null

  async function fetchAll(): Promise<void> {
    const found = await $fetch<Kept<K>[] | null>(path)
    list.value = Array.isArray(found) ? found : []
  }
  const load = (): Promise<void> => (fetching ??= fetchAll())
  async function guarded(action: () => Promise<unknown>): Promise<boolean> {
    message.value = ''
    try {
      await action()
      await fetchAll()
      return true
    } catch (error) {
      message.value = sentenceOf(error)
      return false
    }
  }
  const keep = (name: string, data: KeptData<K>, heading = ''): Promise<boolean> =>
    guarded(() => $fetch(path, { method: 'POST', body: { heading, name, data } }))
  const change = (id: string, body: { heading?: string; name?: string; data?: KeptData<K> }): Promise<boolean> =>
    guarded(() => $fetch(`${path}/${id}`, { method: 'PUT', body }))
  const drop = (id: string): Promise<boolean> => guarded(() => $fetch(`${path}/${id}`, { method: 'DELETE' }))
  const headings = computed(() => [...new Set(list.value.map(each => each.heading))])

  return { list, message, headings, load, keep, change, drop }
}

/** Wishes, pairs, licences, judgements and lists of faces that are kept. */
export const useKeptWishes = defineStore('kept wishes', () => kept('wish'))
export const useKeptPairs = defineStore('kept pairs', () => kept('pair'))
export const useKeptPalettes = defineStore('kept palettes', () => kept('palette'))
export const useKeptChecklists = defineStore('kept checklists', () => kept('checklist'))
export const useKeptLicences = defineStore('kept licences', () => kept('licence'))
export const useJudgements = defineStore('kept judgements', () => kept('judgement'))
export const useSetsOn = defineStore('kept sets on', () => kept('sets on'))
export const useFaceLists = defineStore('kept face lists', () => kept('face list'))
