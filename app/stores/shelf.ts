import { watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import PQueue from 'p-queue'
import type { Folder, Job, PutOnShelf, ShelfCard, ShelfPage } from '~~/shared/api'
import type { FolderMember } from '~~/shared/people'
import type { Right } from '~~/shared/rights'
import type { ShelfSort } from '~~/shared/shelf'
import { sentenceOf } from './desk'
import { useMe } from './me'
import { send } from './sending'

/** A file on its way to the shelf. */
export interface Upload {
  readonly key: number
  readonly name: string
  progress: number
  state: 'waiting' | 'sending' | 'checking' | 'refused' | 'told'
  message: string
}

/** So many files are sent at once, and each so often where the desk has too much to do. */
const filesAtOnce = 3
const mostTries = 10

/** So many cards are fetched at once. */
const cardsAtOnce = 60

/** What lies on the shelf, as far as it was looked at, and what is being put there. */
export const useShelf = defineStore('shelf', () => {
  const me = useMe()
  /** The cards that were fetched, in the order of the shelf; null until the first are here. */
  const cards = ref<ShelfCard[] | null>(null)
  /** How many documents answer to what is looked for. */
  const total = ref(0)
  const uploads = ref<Upload[]>([])
  const sending = new PQueue({ concurrency: filesAtOnce })
  const jobs = ref<Record<string, Job>>({})
  const failure = ref('')
  /** What was thrown away last: it can be put back. */
  const thrownAway = ref<{ readonly id: string; readonly fileName: string } | null>(null)
  const folders = ref<readonly Folder[]>([])
  /** The id of the folder that is looked at; null for the whole shelf. */
  const folder = ref<string | null>(null)
  const query = ref('')
  const sort = ref<ShelfSort>('changed')
  const openFolder = computed(() => folders.value.find(each => each.id === folder.value) ?? null)
  /** Whether whoever looks may do something with what lies in a folder, or in none. */
  const mayIn = (id: string | null, right: Right) =>
    folders.value.find(each => each.id === id)?.rights.includes(right) ?? me.may(right)
  const folderName = (id: string | null) => folders.value.find(each => each.id === id)?.name ?? ''
  let next = 1
  let events: EventSource | null = null
  /** Documents whose jobs ended while cards were on their way: what comes may not know it yet. */
  const finished = new Set<string>()
  let fetching = 0
  /** Only the newest question is answered: an older answer that comes late is passed over. */
  let asked = 0

  const ask = (start: number, count: number, ids?: string) =>
    $fetch<ShelfPage>('/api/shelf', {
      query: { find: query.value.trim(), folder: folder.value ?? undefined, sort: sort.value, start, count, ids },
    })

  /** What is to be said of the room on the desk's disk; null where there is enough. */
  const room = ref<string | null>(null)
  async function fetchRoom(): Promise<void> {
    try {
      room.value = (await $fetch<{ room: string | null }>('/api/health')).room
    } catch {
      /* The shelf says it where the desk cannot be reached. */
    }
  }

  async function fetchFolders(): Promise<void> {
    folders.value = await $fetch<Folder[]>('/api/folders')
  }

  /** Fetches what is shown anew, as far down as it was looked at. */
  async function refresh(): Promise<void> {
    const mine = ++asked
    fetching++
    try {
      await fetchFolders()
      if (mine !== asked) return
      if (openFolder.value === null) folder.value = null
      const wanted = Math.max(cardsAtOnce, cards.value?.length ?? 0)
      const fresh: ShelfCard[] = []
      let page: ShelfPage
      do {
        page = await ask(fresh.length, Math.min(200, wanted - fresh.length))
        if (mine !== asked) return
        fresh.push(...page.cards)
      } while (page.cards.length > 0 && fresh.length < Math.min(wanted, page.total))
      cards.value = fresh
      total.value = page.total
      failure.value = ''
    } catch {
      failure.value = 'The shelf cannot be reached. Is the server running?'
    } finally {
      fetching--
      void catchUp()
    }
  }

  /** Fetches the next cards, where there are more. */
  async function more(): Promise<void> {
    if (cards.value === null || cards.value.length >= total.value) return
    const mine = ++asked
    fetching++
    try {
      const page = await ask(cards.value.length, cardsAtOnce)
      if (mine !== asked) return
      const known = new Set(cards.value.map(card => card.id))
      cards.value.push(...page.cards.filter(card => !known.has(card.id)))
      total.value = page.total
    } catch {
      failure.value = 'The shelf cannot be reached. Is the server running?'
    } finally {
      fetching--
      void catchUp()
    }
  }

  /** Fetches the cards of documents whose jobs ended, as soon as no older answer can take their place. */
  async function catchUp(): Promise<void> {
    if (fetching > 0) return
    const ids = [...finished]
    finished.clear()
    await Promise.all(ids.map(update))
  }

  /** Fetches one card that has changed; where it is not among those shown, nothing. */
  async function update(id: string): Promise<void> {
    if (!cards.value?.some(card => card.id === id)) return
    try {
      const { cards: fresh } = await $fetch<ShelfPage>('/api/shelf', { query: { ids: id } })
      cards.value = cards.value.flatMap(card => (card.id === id ? fresh : [card]))
    } catch {
      /* It is fetched with the next change. */
    }
  }

  // What is looked for begins again at the top.
  watch([folder, sort], () => {
    cards.value = cards.value && []
    void refresh()
  })
  watchDebounced(
    query,
    () => {
      cards.value = cards.value && []
      void refresh()
    },
    { debounce: 200 },
  )

  function listen(): void {
    void fetchRoom()
    events ??= new EventSource('/api/events')
    events.onmessage = ({ data }) => {
      const job = JSON.parse(data as string) as Job
      if (job.batch === null) jobs.value[job.document] = job
      if (job.state !== 'done' && job.state !== 'failed') return
      finished.add(job.document)
      void catchUp()
    }
  }

  function hush(): void {
    events?.close()
    events = null
    // Whoever comes back may have let it go for good meanwhile.
    thrownAway.value = null
  }

  /** Puts a file on the shelf, as soon as fewer than a few are on their way. */
  function put(file: File): Promise<void> {
    const upload: Upload = reactive({ key: next++, name: file.name, progress: 0, state: 'waiting', message: '' })
    uploads.value.push(upload)
    return sending.add(() => sendTo(upload, file))
  }

  /** Sends a file; where the desk has too much to do, again after as long as it says. */
  async function sendTo(upload: Upload, file: File): Promise<void> {
    for (let tries = 1; ; tries++) {
      upload.state = 'sending'
      const { status, text, retry } = await send(file, progress => {
        upload.progress = progress
        if (progress === 1) upload.state = 'checking'
      })
      if (retry !== null && tries < mostTries) {
        upload.state = 'waiting'
        await new Promise(resolve => setTimeout(resolve, retry * 1000))
        continue
      }
      if (status === 201) arrived(upload, JSON.parse(text) as PutOnShelf)
      else refused(upload, text)
      return
    }
  }

  function arrived(upload: Upload, { left }: PutOnShelf): void {
    // What a conversion left out is said, and stays until it is read.
    if (left.length > 0) {
      upload.state = 'told'
      upload.message = `Opened as a text. Left out or guessed: ${left
        .map(each => (each.count > 1 ? `${each.what} (${each.count})` : each.what))
        .join('; ')}.`
    } else uploads.value = uploads.value.filter(each => each.key !== upload.key)
    void refresh()
  }

  function refused(upload: Upload, text: string): void {
    upload.state = 'refused'
    try {
      upload.message = (JSON.parse(text) as { message: string }).message
    } catch {
      upload.message = 'The file did not arrive: the connection was lost. Nothing was kept.'
    }
  }

  async function guarded(action: () => Promise<unknown>): Promise<boolean> {
    let done = true
    let said = ''
    try {
      await action()
    } catch (error) {
      done = false
      said = sentenceOf(error)
    }
    await refresh()
    if (!done) failure.value = said
    return done
  }
  async function throwAway({ id, fileName }: Pick<ShelfCard, 'id' | 'fileName'>): Promise<void> {
    const done = await guarded(() => $fetch(`/api/documents/${id}`, { method: 'DELETE' }))
    thrownAway.value = done ? { id, fileName } : null
  }
  /** Takes what was thrown away last out of the trash again. */
  async function putBack(): Promise<void> {
    const { id } = thrownAway.value!
    if (await guarded(() => $fetch(`/api/trash/${id}/back`, { method: 'POST' }))) thrownAway.value = null
  }
  const keepInFolder = (id: string, days: number | null) =>
    guarded(() => $fetch(`/api/folders/${id}/keep`, { method: 'PUT', body: { days } }))
  /** Says who sees a folder and what they do there, beside the owners of the desk. */
  const setMembers = (id: string, people: readonly FolderMember[]) =>
    guarded(() => $fetch(`/api/folders/${id}/members`, { method: 'PUT', body: { people } }))
  const addFolder = (name: string) =>
    guarded(async () => {
      const { id } = await $fetch<{ id: string }>('/api/folders', { method: 'POST', body: { name } })
      await fetchFolders()
      folder.value = id
    })
  const renameFolder = (id: string, name: string) =>
    guarded(() => $fetch(`/api/folders/${id}`, { method: 'PUT', body: { name } }))
  const removeFolder = (id: string) => guarded(() => $fetch(`/api/folders/${id}`, { method: 'DELETE' }))
  const move = (id: string, to: string | null) =>
    guarded(() => $fetch(`/api/documents/${id}/folder`, { method: 'POST', body: { folder: to } }))

  const dismiss = (key: number) => {
    uploads.value = uploads.value.filter(each => each.key !== key)
  }

  return {
    folders,
    folder,
    openFolder,
    folderName,
    mayIn,
    query,
    sort,
    total,
    addFolder,
    renameFolder,
    removeFolder,
    move,
    cards,
    uploads,
    jobs,
    failure,
    fetchFolders,
    refresh,
    more,
    listen,
    hush,
    put,
    room,
    thrownAway,
    throwAway,
    putBack,
    keepInFolder,
    setMembers,
    dismiss,
  }
})
