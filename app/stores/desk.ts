import { defineStore } from 'pinia'
import type { LicenceUse } from '~~/core/font/licence'
import type { Census } from '~~/core/census/census'
import type { Occurrence } from '~~/core/census/occurrence'
import type { DocumentIds } from '~~/core/document/open'
import type { DocumentInfo, StandInLevels } from '~~/shared/api'
import type { TextRange } from '~~/core/typeset/caret'
import { Engine } from '../workers/engine'
import type { PageView } from '~~/core/typeset/drawing-pages'
import type { FoundText } from '~~/core/change/find'
import type { Asks, Sheets, SheetSize } from '../workers/messages'
import { useLibrary } from './library'
import { useWays } from './ways'

/** What the sentence of a refused request says. */
export function sentenceOf(error: unknown): string {
  const { data } = error as { data?: { message?: string; data?: { message?: string } } }
  return data?.data?.message ?? data?.message ?? (error instanceof Error ? error.message : String(error))
}

/** Whether the server was not reached, or does not reach its database: what was asked may be asked again. */
export function isAway(error: unknown): boolean {
  const { statusCode } = error as { statusCode?: number }
  return statusCode === undefined || statusCode === 503
}

/** The document on the desk. */
export const useDesk = defineStore('desk', () => {
  const engine = shallowRef<Engine<Asks> | null>(null)
  const info = ref<DocumentInfo | null>(null)
  const census = shallowRef<Census | null>(null)
  const all = shallowRef<Sheets>({ pages: [], notes: [], masters: [] })
  const sheets = computed<readonly SheetSize[]>(() => all.value.pages)
  /** Which pages are looked at, and how they lie. */
  const view = ref<PageView>('pages')
  const arrangement = ref<'column' | 'spreads' | 'contact' | 'plain'>('column')
  /** The pages as a plan would make them, in place of what is there: looked at, not stored. */
  const after = shallowRef<{ readonly plan: string; readonly sheets: readonly SheetSize[] | null } | null>(null)
  /** Whose pages are drawn: those of the document, or of a plan by its id. */
  const side = computed(() => after.value?.plan ?? 'now')
  const shown = computed<readonly SheetSize[]>(
    () => (view.value === 'pages' ? after.value?.sheets : null) ?? all.value[view.value],
  )
  const ways = useWays()
  const whiteSpace = ways.way('whiteSpace')
  const grid = ways.way('grid')
  /** Raised when the sheets shall go to the page, or bring the caret into view. */
  const jump = ref(0)
  const reveal = ref(0)
  /** Raised while the sheets scroll: pages that are drawn in part follow. */
  const scrolled = ref(0)
  /** What lies off a page, and pictures that are not there, by view and page: as the pages are drawn. */
  const offPage = ref<Record<string, number>>({})
  const absentPictures = ref<Record<string, readonly string[]>>({})
  const found = shallowRef<{ text: string; matchCase: boolean; places: readonly FoundText[]; at: number } | null>(null)
  /** Text that is lit up while a rule for it is being written. */
  const lit = shallowRef<readonly TextRange[]>([])
  const signed = ref(false)
  const standIns = shallowRef<StandInLevels>({ document: [], folder: [], house: [], desk: [] })
  /** While it is being set, its first page can be looked at. */
  const state = ref<'opening' | 'setting' | 'open' | 'failed'>('opening')
  const failure = ref('')
  /** Raised with every version that is shown: what is drawn belongs to one. */
  const generation = ref(0)

  const zoom = ref(0.86)
  /** The sheets fit what shows them, and go on to when that gets wider or narrower. */
  const fitted = ref(true)
  const page = ref(0)
  const marks = ways.way('marks')
  /** What is marked on the sheets: a face or a voice of the census, with its places. */
  const chosen = ref<{ of: 'face' | 'voice'; key: string } | null>(null)
  const occurrences = shallowRef<readonly Occurrence[]>([])
  const at = ref(-1)
  /** Text under the last click or selection. */
  const pointed = ref<{ face: string; voice: string; text: string } | null>(null)

  const current = computed(() => occurrences.value[at.value] ?? null)

  /** @param known what the page has fetched of it already */
  async function open(id: string, known?: DocumentInfo): Promise<void> {
    state.value = 'opening'
    engine.value?.close()
    engine.value = markRaw(
      new Engine<Asks>(new Worker(new URL('../workers/desk.worker.ts', import.meta.url), { type: 'module' })),
    )
    chosen.value = null
    pointed.value = null
    occurrences.value = []
    found.value = null
    after.value = null
    lit.value = []
    offPage.value = {}
    absentPictures.value = {}
    view.value = 'pages'
    arrangement.value = 'column'
    census.value = null
    page.value = 0
    generation.value = 0
    await load(id, known)
  }

  /** The faces that a document was shown in when it was last counted, by their hashes; none where it never was. */
  const facesOf = (id: string): Promise<string[]> =>
    $fetch<Census>(`/api/documents/${id}/census`).then(
      ({ faces }) => [...new Set(faces.map(face => face.shownBy).filter(hash => hash !== ''))],
      () => [],
    )

  /** Says what is known of a document, and fetches its newest version: the file, and the numbers of its nodes. */
  async function newestOf(id: string, known?: DocumentInfo) {
    const document = known ?? (await $fetch<DocumentInfo>(`/api/documents/${id}`))
    info.value = document
    const { version } = document.document
    const [response, ids] = await Promise.all([
      fetch(`/api/documents/${id}/file?version=${version}`),
      $fetch<DocumentIds>(`/api/documents/${id}/ids?version=${version}`),
    ])
    if (!response.ok) throw new Error('The document cannot be fetched. It is safe on the server; reload the page.')
    const state = document.versions.find(each => each.number === version)?.state ?? version
    return { ids, state, bytes: new Uint8Array(await response.arrayBuffer()) }
  }

  async function load(id: string, known?: DocumentInfo): Promise<void> {
    try {
      const [newest, library, levels, expected] = await Promise.all([
        newestOf(id, known),
        useLibrary().load(),
        $fetch<StandInLevels>(`/api/documents/${id}/stand-ins`),
        facesOf(id),
      ])
      const opened = await engine.value!.ask('open', {
        ...newest,
        faces: library.faces,
        expected,
        standIns: [...levels.document, ...levels.folder, ...levels.house, ...levels.desk],
      })
      signed.value = opened.signed
      standIns.value = levels
      // Another version of what is on the desk already waits until it is whole: its pages stay where they are.
      if (census.value === null) {
        all.value = { ...all.value, pages: opened.sheets }
        generation.value++
        state.value = 'setting'
      }
      await count()
      state.value = 'open'
      failure.value = ''
    } catch (error) {
      failure.value = sentenceOf(error)
      state.value = 'failed'
    }
  }

  /**
   * Sets and counts all pages of what is on the desk now. The sheets that are in sight are drawn anew first, so that no
   * tray tells of pages that do not show it yet.
   */
  async function count(): Promise<void> {
    const own = engine.value
    const counted = await own?.ask('count', {})
    if (!counted || engine.value !== own) return
    all.value = counted.sheets
    if (shown.value.length === 0) view.value = 'pages'
    page.value = Math.min(page.value, Math.max(shown.value.length - 1, 0))
    generation.value++
    // The worker answers in turn: after this the pages that were just asked for are here.
    await nextTick()
    await own!.ask('stand', {})
    census.value = counted.census
    if (chosen.value) {
      const { of, key } = chosen.value
      const kept = at.value
      await choose(of, key)
      if (kept < occurrences.value.length) at.value = kept
    }
  }

  /** Fetches what the server knows of the document's versions. */
  async function refresh(): Promise<void> {
    if (info.value) info.value = await $fetch<DocumentInfo>(`/api/documents/${info.value.document.id}`)
  }

  /** What the document is made for has been said: its faces are held against it. */
  function madeFor(uses: readonly LicenceUse[]): void {
    if (info.value) info.value = { ...info.value, document: { ...info.value.document, uses } }
  }

  /** The document was linked to a house, or to none. */
  function linkedTo(house: string | null): void {
    if (info.value) info.value = { ...info.value, document: { ...info.value.document, house } }
  }

  /** Goes to a page of a view. */
  function show(to: PageView, index: number): void {
    if (all.value[to].length === 0) return
    view.value = to
    page.value = Math.max(0, Math.min(index, all.value[to].length - 1))
    if (arrangement.value === 'contact' || arrangement.value === 'plain') arrangement.value = 'column'
    jump.value++
  }

  /** Draws the sheets as a plan would make them; `sheets` are its pages, where they are known. */
  function showAfter(plan: string, sheets: readonly SheetSize[] | null): void {
    after.value = { plan, sheets }
    page.value = Math.min(page.value, Math.max(shown.value.length - 1, 0))
    generation.value++
  }
  function dropAfter(): void {
    if (!after.value) return
    after.value = null
    page.value = Math.min(page.value, Math.max(shown.value.length - 1, 0))
    generation.value++
  }

  /** Looks for text and goes to its first place. */
  async function find(text: string, matchCase: boolean): Promise<void> {
    if (text === '' || !engine.value) {
      found.value = null
      return
    }
    const places = await engine.value.ask('find', { text, matchCase })
    const from = places.findIndex(place => place.view === view.value && place.page >= page.value)
    found.value = { text, matchCase, places, at: places.length === 0 ? -1 : Math.max(from, 0) }
  }

  function walkFound(step: 1 | -1): void {
    if (!found.value || found.value.places.length === 0) return
    const { length } = found.value.places
    found.value = { ...found.value, at: (found.value.at + step + length) % length }
  }

  /** Marks all places of a face or voice on the sheets, or with the same one again takes the marks away. */
  async function choose(of: 'face' | 'voice', key: string | null): Promise<void> {
    const known =
      key !== null && (of === 'face' ? census.value?.faces : census.value?.voices)?.some(each => each.key === key)
    chosen.value = known ? { of, key: key! } : null
    occurrences.value = known ? await engine.value!.ask('occurrences', { of, key: key! }) : []
    at.value = -1
  }

  /** Walks through places that no census row names, such as those of a style. */
  function walkThrough(places: readonly Occurrence[]): void {
    chosen.value = null
    occurrences.value = places
    at.value = places.length > 0 ? 0 : -1
  }

  /** Walks to the next or the previous place of what is chosen. */
  function walk(step: 1 | -1): void {
    const count = occurrences.value.length
    if (count === 0) return
    at.value = at.value < 0 ? (step > 0 ? 0 : count - 1) : (at.value + step + count) % count
  }

  async function step(direction: 'undo' | 'redo'): Promise<void> {
    if (!info.value) return
    const { id } = info.value.document
    try {
      const { state: to } = await $fetch<{ state: number }>(`/api/documents/${id}/step`, {
        method: 'POST',
        body: { base: info.value.document.version, direction },
      })
      failure.value = ''
      // The state may still be here: then nothing need be fetched.
      if (await engine.value?.ask('back', { state: to })) {
        generation.value++
        await refresh()
        await count()
        return
      }
    } catch (error) {
      failure.value = sentenceOf(error)
    }
    await load(id)
  }

  function close(): void {
    engine.value?.close()
    engine.value = null
    info.value = null
    census.value = null
    all.value = { pages: [], notes: [], masters: [] }
  }

  return {
    engine,
    info,
    census,
    all,
    sheets,
    view,
    arrangement,
    shown,
    after,
    side,
    lit,
    madeFor,
    linkedTo,
    showAfter,
    dropAfter,
    whiteSpace,
    grid,
    jump,
    reveal,
    scrolled,
    offPage,
    absentPictures,
    found,
    signed,
    standIns,
    state,
    failure,
    generation,
    zoom,
    fitted,
    page,
    marks,
    chosen,
    occurrences,
    at,
    current,
    pointed,
    open,
    load,
    count,
    refresh,
    show,
    find,
    walkFound,
    choose,
    walk,
    walkThrough,
    step,
    close,
  }
})
