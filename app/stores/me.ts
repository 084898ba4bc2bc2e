import { defineStore } from 'pinia'
import type { Right } from '~~/shared/rights'
import type { Me } from '~~/shared/people'

/** Who is at the desk: what they may do here, and what everybody of the studio is called. */
export const useMe = defineStore('me', () => {
  const me = shallowRef<Me | null>(null)
  const may = (right: Right) => me.value?.rights.includes(right) ?? false
  const nameOf = (person: string) => me.value?.names[person] ?? ''
  /** Several people share this desk: what was done tells who did it. */
  const isShared = computed(() => me.value?.signInNeeded ?? false)

  async function load(): Promise<Me> {
    return (me.value = await $fetch<Me>('/api/me'))
  }
  async function signOut(): Promise<void> {
    await $fetch('/api/sign-out', { method: 'POST', body: {} }).catch(() => null)
    // What this person saw stays in no store of the page.
    location.assign('/sign-in')
  }
  return { me, may, nameOf, isShared, load, signOut }
})
