import { defineStore } from 'pinia'
import type { RemarkFinding, RemarkPlace } from '~~/core/remarks/remark'
import type { Remark, RemarkAct } from '~~/shared/remarks'
import { sentenceOf } from './desk'

/** What is said, before it is kept. */
export interface NewRemark {
  readonly version: number
  readonly place: RemarkPlace | null
  readonly text: string
  readonly to: string | null
  readonly finding?: RemarkFinding
}

/** What people said of the document on the desk, oldest first. */
export const useRemarks = defineStore('remarks', () => {
  const document = ref('')
  const list = shallowRef<readonly Remark[]>([])
  const message = ref('')
  const open = computed(() => list.value.filter(each => each.settled === null))
  const settled = computed(() => list.value.filter(each => each.settled !== null))

  /** Asks, and shows what came of it; false, with why, where nothing did. Answers for another document are passed by. */
  async function shown(ask: (path: string) => Promise<readonly Remark[]>): Promise<boolean> {
    const of = document.value
    try {
      const found = await ask(`/api/documents/${of}/remarks`)
      if (of === document.value) {
        // It is asked again and again: where nobody said anything, nothing on the sheets moves.
        if (JSON.stringify(found) !== JSON.stringify(list.value)) list.value = found
        message.value = ''
      }
      return true
    } catch (error) {
      message.value = sentenceOf(error)
      return false
    }
  }
  async function load(id: string): Promise<void> {
    if (id !== document.value) {
      document.value = id
      list.value = []
      message.value = ''
    }
    await shown(path => $fetch<Remark[]>(path))
  }
  const add = (remark: NewRemark) => shown(path => $fetch<Remark[]>(path, { method: 'POST', body: remark }))
  const act = (remark: string, body: RemarkAct) =>
    shown(path => $fetch<Remark[]>(`${path}/${remark}`, { method: 'POST', body }))
  const remove = (remark: string) => shown(path => $fetch<Remark[]>(`${path}/${remark}`, { method: 'DELETE' }))

  return { document, list, message, open, settled, load, add, act, remove }
})
