import { defineStore } from 'pinia'
import type { Job } from '~~/shared/api'
import type { Folder } from '~~/shared/api'
import type { ShelfCard } from '~~/shared/api'

import { sentenceOf } from './desk'

/** A file on its way to the shelf. */
export interface Upload {
  readonly key: number
  readonly name: string
  progress: number
  state: 'sending' | 'checking' | 'refused' | 'told'
  message: string
}

/** What lies on the shelf, and what is being put there. */
export const useShelf = defineStore('shelf', () => {
  const cards = ref<ShelfCard[] | null>(null)
  const uploads = ref<Upload[]>([])
  const jobs = ref<Record<string, Job>>({})
  const failure = ref('')
  const folders = ref<readonly Folder[]>([])
  /** The folder that is looked at; null for the whole shelf. */
  const folder = ref<string | null>(null)
  const query = ref('')
  /** What is shown: of the open folder, with the words that are looked for in name, title or faces. */
  const shown = computed(() => {
    const wanted = query.value.trim().toLowerCase()
    return (cards.value ?? []).filter(
      card =>
        (folder.value === null || card.folder === folder.value) &&
        (wanted === '' ||
          `${card.fileName} ${card.title} ${card.folder ?? ''} ${card.faces.map(face => face.family).join(' ')}`
            .toLowerCase()
            .includes(wanted)),
    )
  })
  let next = 1
  let events: EventSource | null = null

  async function refresh(): Promise<void> {
    try {
      const [all, list] = await Promise.all([$fetch<ShelfCard[]>('/api/shelf'), $fetch<Folder[]>('/api/folders')])
      cards.value = all
      folders.value = list
      if (folder.value !== null && !list.some(each => each.name === folder.value)) folder.value = null
      failure.value = ''
    } catch {
      failure.value = 'The shelf cannot be reached. Is the server running?'
    }
  }

  function listen(): void {
    events ??= new EventSource('/api/events')
    events.onmessage = ({ data }) => {
      const job = JSON.parse(data as string) as Job
      if (job.batch === null) jobs.value[job.document] = job
      if (job.state === 'done' || job.state === 'failed') void refresh()
    }
  }

  function hush(): void {
    events?.close()
    events = null
  }

  function put(file: File): Promise<void> {
    const upload: Upload = reactive({ key: next++, name: file.name, progress: 0, state: 'sending', message: '' })
    uploads.value.push(upload)
    return new Promise(resolve => {
      const request = new XMLHttpRequest()
      request.open('POST', `/api/documents?name=${encodeURIComponent(file.name)}`)
      request.upload.onprogress = ({ loaded, total }) => {
        upload.progress = total > 0 ? loaded / total : 0
        if (loaded === total) upload.state = 'checking'
      }
      request.onloadend = () => {
        if (request.status === 201) {
          // What a conversion left out is said, and stays until it is read.
          const { left } = JSON.parse(request.responseText) as { left: { what: string; count: number }[] }
          if (left.length > 0) {
            upload.state = 'told'
            upload.message = `Opened as a text. Left out or guessed: ${left
              .map(each => (each.count > 1 ? `${each.what} (${each.count})` : each.what))
              .join('; ')}.`
          } else uploads.value = uploads.value.filter(each => each.key !== upload.key)
          void refresh()
        } else {
          upload.state = 'refused'
          try {
            upload.message = (JSON.parse(request.responseText) as { message: string }).message
          } catch {
            upload.message = 'The file did not arrive: the connection was lost. Nothing was kept.'
          }
        }
        resolve()
      }
      request.send(file)
    })
  }

  async function remove(id: string): Promise<void> {
    await $fetch(`/api/documents/${id}`, { method: 'DELETE' })
    await refresh()
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
  const addFolder = (name: string) => guarded(() => $fetch('/api/folders', { method: 'POST', body: { name } }))
  const removeFolder = (name: string) =>
    guarded(() => $fetch('/api/folders/remove', { method: 'POST', body: { name } }))
  const move = (id: string, to: string | null) =>
    guarded(() => $fetch(`/api/documents/${id}/folder`, { method: 'POST', body: { folder: to } }))

  const dismiss = (key: number) => {
    uploads.value = uploads.value.filter(each => each.key !== key)
  }

  return {
    folders,
    folder,
    query,
    shown,
    addFolder,
    removeFolder,
    move,
    cards,
    uploads,
    jobs,
    failure,
    refresh,
    listen,
    hush,
    put,
    remove,
    dismiss,
  }
})
