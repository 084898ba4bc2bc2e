import { defineStore } from 'pinia'
import type { Trash } from '~~/shared/api'
import { sentenceOf } from './desk'

/** What lies in the trash, and what was let go for good. */
export const useTrash = defineStore('trash', () => {
  const trash = ref<Trash | null>(null)
  const failure = ref('')
  const done = ref('')

  async function fetch(): Promise<void> {
    try {
      trash.value = await $fetch<Trash>('/api/trash')
      failure.value = ''
    } catch (error) {
      failure.value = sentenceOf(error)
    }
  }

  /** Does something and says so; what lies there is fetched anew whatever came of it. */
  async function act(action: () => Promise<unknown>, said: string): Promise<void> {
    done.value = ''
    let failed = ''
    try {
      await action()
      done.value = said
    } catch (error) {
      failed = sentenceOf(error)
    }
    await fetch()
    if (failed !== '') failure.value = failed
  }

  const putBack = (id: string, name: string) =>
    act(() => $fetch(`/api/trash/${id}/back`, { method: 'POST' }), `${name} is back on the shelf.`)
  const purge = (id: string, name: string) =>
    act(() => $fetch(`/api/trash/${id}`, { method: 'DELETE' }), `${name} is gone for good.`)
  const empty = () => act(() => $fetch('/api/trash', { method: 'DELETE' }), 'The trash is empty.')
  const keepFor = (days: number) =>
    act(
      () => $fetch('/api/trash', { method: 'PUT', body: { days } }),
      `The trash keeps documents for ${days} days now.`,
    )

  return { trash, failure, done, fetch, putBack, purge, empty, keepFor }
})
