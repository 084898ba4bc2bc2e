import { defineStore } from 'pinia'
import type { Rehearsal } from '~~/core/compare/rehearse'
import type { Comparison, DifferenceKind } from '~~/core/compare/compare'
import type { SheetSize } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'

/** The document on the desk held against an earlier version, or against another document. */
export const useCompare = defineStore('compare', () => {
  const desk = useDesk()
  const comparison = shallowRef<Comparison | null>(null)
  /** The document as a desk without our faces would see it, where that is what is shown. */
  const rehearsal = shallowRef<Rehearsal | null>(null)
  const sheets = shallowRef<readonly SheetSize[]>([])
  /** What it is held against, in words. */
  const against = ref('')
  /** Which version of which document that is; null for the document without our faces. */
  const held = ref<{ readonly document: string; readonly version: number } | null>(null)
  const busy = ref(false)
  const message = ref('')
  const kind = ref<DifferenceKind | 'all'>('all')
  /** Its pages stand in place of the sheets. */
  const walking = ref(false)
  /** Side by side, or laid over one another. */
  const laid = ref<'beside' | 'over'>('beside')
  const at = ref(0)
  /** Raised with every comparison: what is drawn of its pages belongs to one. */
  const generation = ref(0)

  const shown = computed(() =>
    (comparison.value?.differences ?? []).filter(each => kind.value === 'all' || each.kind === kind.value),
  )
  const current = computed(() => shown.value[at.value] ?? null)

  /** Fetches a version of a document and compares what is on the desk with it. */
  async function compare(document: string, version: number, words: string): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    busy.value = true
    message.value = ''
    try {
      const response = await fetch(`/api/documents/${document}/file?version=${version}`)
      if (!response.ok) throw new Error('It cannot be fetched. Nothing was changed.')
      const found = await desk.engine.ask('compare', { bytes: new Uint8Array(await response.arrayBuffer()) })
      comparison.value = found.comparison
      rehearsal.value = null
      sheets.value = found.sheets
      against.value = words
      held.value = { document, version }
      kind.value = 'all'
      at.value = 0
      generation.value++
      walking.value = true
    } catch (error) {
      message.value = sentenceOf(error)
    }
    busy.value = false
  }

  /** Sets the document without our faces, and shows its pages beside those of here. */
  async function rehearse(): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    busy.value = true
    message.value = ''
    try {
      const found = await desk.engine.ask('rehearse', {})
      rehearsal.value = found.rehearsal
      comparison.value = null
      sheets.value = found.sheets
      against.value = 'Without our faces'
      held.value = null
      generation.value++
      walking.value = true
    } catch (error) {
      message.value = sentenceOf(error)
    }
    busy.value = false
  }

  function go(to: number): void {
    at.value = Math.max(0, Math.min(to, shown.value.length - 1))
    walking.value = true
  }
  watch(kind, () => {
    at.value = 0
  })

  function clear(): void {
    comparison.value = null
    rehearsal.value = null
    sheets.value = []
    message.value = ''
    walking.value = false
    void desk.engine?.ask('drop', { id: 'compare' }).catch(() => null)
  }

  return {
    comparison,
    rehearsal,
    rehearse,
    sheets,
    against,
    held,
    busy,
    message,
    kind,
    walking,
    laid,
    at,
    generation,
    shown,
    current,
    compare,
    go,
    clear,
  }
})
