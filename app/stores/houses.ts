import { defineStore } from 'pinia'
import type { House, HouseRole, Medium } from '~~/core/house/house'
import type { HouseInfo, HouseRow, LinkedDocument, MeasuredShare, ShareOnDay } from '~~/shared/api'
import { sentenceOf } from './desk'

/** The houses of the desk: those that are there, the one that is looked at, and its documents. */
export const useHouses = defineStore('houses', () => {
  const list = shallowRef<readonly HouseRow[]>([])
  const info = shallowRef<HouseInfo | null>(null)
  /** The house as it is being changed; what is not kept yet is told by `changed`. */
  const draft = ref<House | null>(null)
  const trialUntil = ref<string | null>(null)
  const medium = ref<Medium>('text')
  /** The role that is looked at. */
  const roleId = ref('body')
  const documents = shallowRef<readonly LinkedDocument[]>([])
  const days = shallowRef<readonly ShareOnDay[]>([])
  const measuring = ref(0)
  const busy = ref(false)
  const message = ref('')
  const done = ref('')

  const plainly = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
  const changed = computed(
    () =>
      info.value !== null &&
      draft.value !== null &&
      (JSON.stringify(draft.value) !== JSON.stringify(info.value.working) ||
        trialUntil.value !== info.value.trialUntil),
  )
  const role = computed((): HouseRole | null => draft.value?.roles.find(each => each.id === roleId.value) ?? null)

  async function guarded<T>(work: () => Promise<T>): Promise<T | null> {
    busy.value = true
    message.value = ''
    done.value = ''
    try {
      return await work()
    } catch (error) {
      message.value = sentenceOf(error)
      return null
    } finally {
      busy.value = false
    }
  }

  async function load(): Promise<void> {
    const found = await guarded(() => $fetch<HouseRow[]>('/api/houses'))
    if (found) list.value = found
  }

  function take(found: HouseInfo): void {
    info.value = found
    draft.value = plainly(found.working)
    trialUntil.value = found.trialUntil
    if (!found.working.roles.some(each => each.id === roleId.value)) roleId.value = found.working.roles[0]?.id ?? ''
  }

  async function open(id: string): Promise<void> {
    const found = await guarded(() => $fetch<HouseInfo>(`/api/houses/${id}`))
    if (!found) return
    take(found)
    await loadDocuments()
  }

  /** Another house as it is worked on, to be held against this one; null where it cannot be read, which is told. */
  async function workingOf(id: string): Promise<House | null> {
    return (await guarded(() => $fetch<HouseInfo>(`/api/houses/${id}`)))?.working ?? null
  }

  function leave(): void {
    info.value = null
    draft.value = null
    documents.value = []
    days.value = []
  }

  /** Keeps a new house, and looks at it. */
  async function add(house: House, trial: string | null = null): Promise<string | null> {
    const made = await guarded(() =>
      $fetch<{ id: string }>('/api/houses', { method: 'POST', body: { house: plainly(house), trialUntil: trial } }),
    )
    if (made) await load()
    return made?.id ?? null
  }
  async function drawUp(name: string, ids: readonly string[]): Promise<string | null> {
    const made = await guarded(() =>
      $fetch<{ id: string }>('/api/houses/from-documents', { method: 'POST', body: { name, documents: [...ids] } }),
    )
    if (made) await load()
    return made?.id ?? null
  }

  /** Keeps what was changed of the working house; versions stay. */
  async function save(): Promise<boolean> {
    const { value: own } = info
    if (!own || !draft.value) return false
    const kept = await guarded(() =>
      $fetch<HouseInfo>(`/api/houses/${own.id}`, {
        method: 'PUT',
        body: { house: plainly(draft.value), trialUntil: trialUntil.value, revision: own.revision },
      }),
    )
    if (!kept) return false
    take(kept)
    await load()
    done.value = 'The working house is kept. Documents follow when it is issued.'
    return true
  }
  function undoDraft(): void {
    if (info.value) take(info.value)
  }

  /** Issues the working house; what was changed is kept first. */
  async function issue(): Promise<boolean> {
    if (changed.value && !(await save())) return false
    const { value: own } = info
    if (!own) return false
    const issued = await guarded(() =>
      $fetch<HouseInfo>(`/api/houses/${own.id}/issue`, { method: 'POST', body: { revision: own.revision } }),
    )
    if (!issued) return false
    take(issued)
    await load()
    await loadDocuments()
    done.value = `Version ${issued.issued} is issued.`
    return true
  }

  async function remove(): Promise<void> {
    const { value: own } = info
    if (!own) return
    if (await guarded(() => $fetch(`/api/houses/${own.id}`, { method: 'DELETE' }))) {
      leave()
      await load()
    }
  }

  /** The documents that are linked; those that were not measured as they are now are measured, one after the other. */
  async function loadDocuments(): Promise<void> {
    const { value: own } = info
    if (!own) return
    const fetchAll = () =>
      $fetch<{ documents: LinkedDocument[]; days: ShareOnDay[] }>(`/api/houses/${own.id}/documents`)
    const found = await guarded(fetchAll)
    if (!found || info.value?.id !== own.id) return
    documents.value = found.documents
    days.value = found.days
    const waiting =
      own.issued === 0 ? [] : found.documents.filter(each => each.share === null && each.kind !== 'finished')
    measuring.value = waiting.length
    for (const { id } of waiting) {
      const share = await $fetch<MeasuredShare>(`/api/houses/${own.id}/measure`, {
        method: 'POST',
        body: { document: id },
      }).catch(() => null)
      if (info.value?.id !== own.id) return
      measuring.value--
      if (share) documents.value = documents.value.map(each => (each.id === id ? { ...each, share } : each))
    }
    if (waiting.length > 0) days.value = (await fetchAll().catch(() => found)).days
  }

  return {
    list,
    info,
    draft,
    trialUntil,
    medium,
    roleId,
    role,
    documents,
    days,
    measuring,
    busy,
    message,
    done,
    changed,
    load,
    open,
    workingOf,
    leave,
    add,
    drawUp,
    save,
    undoDraft,
    issue,
    remove,
    loadDocuments,
  }
})
