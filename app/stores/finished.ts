import { defineStore } from 'pinia'
import {
  finishedStartOf,
  type FinishedStartLevel,
  type FinishedStartLevels,
  type FinishedStarts,
} from '~~/core/change/defaults/finished-starts'
import type { StandIn } from '~~/core/font/library'
import type { FinishedCensus } from '~~/core/format/finished/census'
import type { FinishedFinding } from '~~/core/format/finished/proof'
import type { FinishedPlace } from '~~/core/format/finished/reader'
import type { WishedChange } from '~~/core/format/finished/wish'
import { checklistFor, usualChecklist } from '~~/core/proof/checklist'
import { deskChecklist } from '~~/shared/shelf'
import type { DocumentInfo, SetStandInLevel, StandInLevels } from '~~/shared/api'
import type { FinishedChanged, FinishedTrial } from '~~/shared/finished'
import type { House } from '~~/core/house/house'
import { bytesBehind, openPages, type PdfPages } from '../finished/drawing'
import { Engine } from '../workers/engine'
import type { FinishedAsks, FinishedSheet } from '../workers/finished-messages'
import { sentenceOf } from './desk'
import { useKeptChecklists, useKeptLicences } from './kept'
import { useLibrary } from './library'
import { madeForOf } from './made-for'

/** What is shown of a change before it is made: its words, and the pages as they would be. */
export interface ShownTrial {
  readonly trial: FinishedTrial
  readonly pages: PdfPages
  readonly changes: readonly WishedChange[]
}

const noStarts: FinishedStartLevels = { document: {}, folder: {}, desk: {}, house: {} }

/** The finished PDF on the desk: its pages, what is in them, what is looked for, and what would be changed. */
export const useFinished = defineStore('finished', () => {
  const info = shallowRef<DocumentInfo | null>(null)
  const engine = shallowRef<Engine<FinishedAsks> | null>(null)
  const pages = shallowRef<PdfPages | null>(null)
  const sheets = shallowRef<readonly FinishedSheet[]>([])
  const census = shallowRef<FinishedCensus | null>(null)
  const state = ref<'opening' | 'open' | 'failed'>('opening')
  const failure = ref('')
  const page = ref(0)
  /** Raised when the sheets shall go to the page that is looked at. */
  const jump = ref(0)
  /** Places that are marked on the sheets and walked through, and at which the walk is. */
  const places = shallowRef<readonly FinishedPlace[]>([])
  const at = ref(-1)
  /** What the places are of: a font of the census, words that were looked for, or findings. */
  const marked = ref<{ of: 'font'; font: number } | { of: 'words'; text: string; matchCase: boolean } | null>(null)
  const trial = shallowRef<ShownTrial | null>(null)
  const trying = ref(false)
  const message = ref('')
  const done = ref('')
  const starts = shallowRef<FinishedStartLevels>(noStarts)
  const start = computed(() => finishedStartOf(starts.value))
  const standIns = shallowRef<StandInLevels>({ document: [], folder: [], house: [], desk: [] })
  const findings = shallowRef<readonly FinishedFinding[] | null>(null)
  /** The house that the file is linked to, in the version that was issued last; null for none. */
  const house = shallowRef<House | null>(null)
  let bytes = new Uint8Array()
  let tried = 0

  const current = computed(() => places.value[at.value] ?? null)
  const shownPages = computed(() => trial.value?.pages ?? pages.value)
  const path = (rest: string) => `/api/documents/${info.value!.document.id}/${rest}`

  async function open(document: DocumentInfo): Promise<void> {
    close()
    info.value = document
    engine.value = markRaw(
      new Engine<FinishedAsks>(
        new Worker(new URL('../workers/finished.worker.ts', import.meta.url), { type: 'module' }),
        'Reading stopped. Reload the page; the PDF is safe.',
      ),
    )
    state.value = 'opening'
    page.value = 0
    await load()
  }

  /** Fetches the newest version and reads it. */
  async function load(): Promise<void> {
    try {
      const library = await useLibrary().load()
      const response = await fetch(path(`file?version=${info.value!.document.version}`))
      if (!response.ok) throw new Error('The PDF cannot be fetched. It is safe on the server; reload the page.')
      bytes = new Uint8Array(await response.arrayBuffer())
      const own = engine.value
      const opened = await own!.ask('open', { bytes, faces: library.faces })
      const drawn = await openPages(bytes)
      const counted = await own!.ask('census', {})
      if (engine.value !== own) return
      dropTrial()
      pages.value?.close()
      pages.value = drawn
      sheets.value = opened.looks
      census.value = counted
      page.value = Math.min(page.value, Math.max(sheets.value.length - 1, 0))
      findings.value = null
      state.value = 'open'
      failure.value = ''
      await remark()
    } catch (error) {
      failure.value = sentenceOf(error)
      state.value = 'failed'
    }
  }

  /** What was marked is looked for anew: the pages are others now. */
  async function remark(): Promise<void> {
    const { value: of } = marked
    if (of?.of === 'font') await choose(of.font)
    else if (of?.of === 'words') await find(of.text, of.matchCase)
    else unmark()
  }

  function unmark(): void {
    marked.value = null
    places.value = []
    at.value = -1
  }

  /** Marks where a font of the census sets text; null takes the marks away. */
  async function choose(font: number | null): Promise<void> {
    unmark()
    if (font === null || !census.value?.fonts[font]) return
    marked.value = { of: 'font', font }
    places.value = await engine.value!.ask('placesOf', { font })
  }

  async function find(text: string, matchCase: boolean): Promise<void> {
    unmark()
    if (text === '') return
    marked.value = { of: 'words', text, matchCase }
    places.value = await engine.value!.ask('find', { words: text, matchCase })
    const from = places.value.findIndex(place => place.page > page.value)
    if (places.value.length > 0) go(Math.max(from, 0))
  }

  /** Goes to a place of those that are marked. */
  function go(index: number): void {
    at.value = index
    if (!current.value) return
    show(current.value.page - 1)
  }
  function walk(step: 1 | -1): void {
    const { length } = places.value
    if (length > 0) go(at.value < 0 ? (step > 0 ? 0 : length - 1) : (at.value + step + length) % length)
  }

  /** Marks places that something else found, and goes to the first. */
  function walkThrough(found: readonly FinishedPlace[]): void {
    unmark()
    places.value = found
    if (found.length > 0) go(0)
  }

  /** Goes to a page, from 0. */
  function show(index: number): void {
    page.value = Math.max(0, Math.min(index, sheets.value.length - 1))
    jump.value++
  }

  /** Shows what changes would do, on the pages as they would be; the last one asked for wins. */
  async function look(changes: readonly WishedChange[]): Promise<void> {
    const own = ++tried
    trying.value = true
    message.value = ''
    done.value = ''
    try {
      const made = await $fetch<FinishedTrial>(path('finished'), {
        method: 'POST',
        body: { base: info.value!.document.version, changes, look: true },
      })
      const drawn = await openPages(bytesBehind(bytes, made.behind))
      if (own !== tried) {
        drawn.close()
        return
      }
      trial.value?.pages.close()
      trial.value = { trial: made, pages: drawn, changes }
      const [first] = changes
      if (first && first.page !== page.value + 1) show(first.page - 1)
    } catch (error) {
      if (own !== tried) return
      dropTrial()
      message.value = sentenceOf(error)
    }
    trying.value = false
  }

  function dropTrial(): void {
    tried++
    trying.value = false
    message.value = ''
    trial.value?.pages.close()
    trial.value = null
  }

  /** Makes changes, as one version. */
  async function make(changes: readonly WishedChange[]): Promise<boolean> {
    trying.value = true
    try {
      const made = await $fetch<FinishedChanged>(path('finished'), {
        method: 'POST',
        body: { base: info.value!.document.version, changes },
      })
      await refresh()
      const { refused } = made
      done.value = [made.title, ...made.said, ...refused].map(each => `${each.replace(/\.$/, '')}.`).join(' ')
      return true
    } catch (error) {
      message.value = sentenceOf(error)
      return false
    } finally {
      trying.value = false
    }
  }

  async function refresh(): Promise<void> {
    info.value = await $fetch<DocumentInfo>(path('').replace(/\/$/, ''))
    await load()
  }

  async function step(direction: 'undo' | 'redo'): Promise<void> {
    try {
      await $fetch(path('step'), { method: 'POST', body: { base: info.value!.document.version, direction } })
      done.value = ''
      failure.value = ''
    } catch (error) {
      failure.value = sentenceOf(error)
    }
    await refresh()
  }

  /** Fetches what added text begins with, and who stands in for whom. */
  async function fetchStarts(): Promise<void> {
    const [own, levels] = await Promise.all([
      $fetch<FinishedStartLevels>(path('finished-starts')),
      $fetch<StandInLevels>(path('stand-ins')),
    ])
    starts.value = own
    standIns.value = levels
  }
  async function act(work: () => Promise<unknown>, said: string): Promise<boolean> {
    message.value = ''
    done.value = ''
    try {
      await work()
      await fetchStarts()
      done.value = said
      return true
    } catch (error) {
      message.value = sentenceOf(error)
      return false
    }
  }
  const setStarts = (level: FinishedStartLevel, own: FinishedStarts, said: string) =>
    act(() => $fetch(path('finished-starts'), { method: 'PUT', body: { level, starts: own } }), said)
  const setStandIn = (level: SetStandInLevel, family: string, script: StandIn['script'], to: string | null) =>
    act(
      () => $fetch(path('stand-ins'), { method: 'PUT', body: { level, family, script, to } }),
      to === null ? 'The stand-in is taken away.' : `${to} stands in.`,
    )

  /** Looks the pages over by the checklist of the house that the file is linked to, or of the desk. */
  async function proof(): Promise<void> {
    const kept = useKeptChecklists()
    const licences = useKeptLicences()
    await Promise.all([kept.load(), licences.load()])
    const desk = kept.list.find(each => each.name === deskChecklist)?.data ?? usualChecklist
    const list = checklistFor(house.value, desk)
    const plain = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T
    const madeFor = madeForOf(info.value, licences)
    findings.value = await engine.value!.ask('proof', { house: plain(house.value), checklist: plain(list), madeFor })
  }

  function close(): void {
    dropTrial()
    engine.value?.close()
    engine.value = null
    pages.value?.close()
    pages.value = null
    census.value = null
    findings.value = null
    info.value = null
    sheets.value = []
    unmark()
    done.value = ''
  }

  return {
    info,
    engine,
    pages,
    shownPages,
    sheets,
    census,
    state,
    failure,
    page,
    jump,
    places,
    at,
    current,
    marked,
    trial,
    trying,
    message,
    done,
    starts,
    start,
    standIns,
    findings,
    house,
    open,
    choose,
    find,
    go,
    walk,
    walkThrough,
    show,
    look,
    dropTrial,
    make,
    step,
    fetchStarts,
    setStarts,
    setStandIn,
    proof,
    close,
  }
})
