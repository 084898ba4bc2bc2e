import { defineStore } from 'pinia'
import type { Census, Occurrence } from '~~/core/census/census'
import type { DocumentIds } from '~~/core/document/open'
import type { DocumentRow, VersionRow } from '~~/server/store/documents'
import { Engine } from '../workers/engine'
import type { SheetSize } from '../workers/messages'
import { useLibrary } from './library'

interface Step { readonly state: number, readonly title: string }
interface Info { document: DocumentRow, versions: VersionRow[], history: { undo: Step | null, redo: Step | null } }

/** What the sentence of a refused request says. */
export function sentenceOf(error: unknown): string {
  const { data } = error as { data?: { message?: string, data?: { message?: string } } }
  return data?.data?.message ?? data?.message ?? (error instanceof Error ? error.message : String(error))
}

/** The document on the desk. */
export const useDesk = defineStore('desk', () => {
  const engine = shallowRef<Engine | null>(null)
  const info = ref<Info | null>(null)
  const census = shallowRef<Census | null>(null)
  const sheets = shallowRef<readonly SheetSize[]>([])
  const signed = ref(false)
  /** While it is being set, its first page can be looked at. */
  const state = ref<'opening' | 'setting' | 'open' | 'failed'>('opening')
  const failure = ref('')
  /** Raised with every version that is shown: what is drawn belongs to one. */
  const generation = ref(0)

  const zoom = ref(0.86)
  const page = ref(0)
  const marks = ref(true)
  /** What is marked on the sheets: a face or a voice of the census, with its places. */
  const chosen = ref<{ of: 'face' | 'voice', key: string } | null>(null)
  const occurrences = shallowRef<readonly Occurrence[]>([])
  const at = ref(-1)
  /** Text under the last click or selection. */
  const pointed = ref<{ face: string, voice: string, text: string } | null>(null)

  const current = computed(() => occurrences.value[at.value] ?? null)

  async function open(id: string): Promise<void> {
    state.value = 'opening'
    engine.value?.close()
    engine.value = markRaw(new Engine())
    chosen.value = null
    pointed.value = null
    occurrences.value = []
    census.value = null
    page.value = 0
    generation.value = 0
    await show(id)
  }

  async function show(id: string): Promise<void> {
    try {
      const library = await useLibrary().load()
      info.value = await $fetch<Info>(`/api/documents/${id}`)
      const { version } = info.value.document
      const [response, ids] = await Promise.all([fetch(`/api/documents/${id}/file?version=${version}`), $fetch<DocumentIds>(`/api/documents/${id}/ids?version=${version}`)])
      if (!response.ok) throw new Error('The document cannot be fetched. It is safe on the server; reload the page.')
      const opened = await engine.value!.ask('open', { bytes: new Uint8Array(await response.arrayBuffer()), ids, faces: library.faces })
      signed.value = opened.signed
      // Another version of what is on the desk already waits until it is whole: its pages stay where they are.
      if (census.value === null) {
        sheets.value = opened.sheets
        generation.value++
        state.value = 'setting'
      }
      const counted = await engine.value!.ask('count', {})
      census.value = counted.census
      sheets.value = counted.sheets
      page.value = Math.min(page.value, Math.max(counted.sheets.length - 1, 0))
      generation.value++
      state.value = 'open'
      failure.value = ''
      if (chosen.value) await choose(chosen.value.of, chosen.value.key)
    }
    catch (error) {
      failure.value = sentenceOf(error)
      state.value = 'failed'
    }
  }

  /** Marks all places of a face or voice on the sheets, or with the same one again takes the marks away. */
  async function choose(of: 'face' | 'voice', key: string | null): Promise<void> {
    const known = key !== null && (of === 'face' ? census.value?.faces : census.value?.voices)?.some(each => each.key === key)
    chosen.value = known ? { of, key: key! } : null
    occurrences.value = known ? await engine.value!.ask('occurrences', { of, key: key! }) : []
    at.value = -1
  }

  /** Walks to the next or the previous place of what is chosen. */
  function walk(step: 1 | -1): void {
    const count = occurrences.value.length
    if (count === 0) return
    at.value = at.value < 0 ? (step > 0 ? 0 : count - 1) : (at.value + step + count) % count
  }

  async function step(direction: 'undo' | 'redo'): Promise<void> {
    if (!info.value) return
    try {
      await $fetch(`/api/documents/${info.value.document.id}/step`, { method: 'POST', body: { base: info.value.document.version, direction } })
      failure.value = ''
    }
    catch (error) { failure.value = sentenceOf(error) }
    await show(info.value.document.id)
  }

  function close(): void {
    engine.value?.close()
    engine.value = null
    info.value = null
    census.value = null
    sheets.value = []
  }

  return { engine, info, census, sheets, signed, state, failure, generation, zoom, page, marks, chosen, occurrences, at, current, pointed, open, show, choose, walk, step, close }
})
