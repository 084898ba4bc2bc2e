import { defineStore } from 'pinia'
import type { WishList } from '~~/core/change/plan'
import { swapSchema, type SwapWish } from '~~/core/change/swap/wish'
import { recastSchema } from '~~/core/change/recast/wish'
import type { Kept } from '~~/shared/kept'
import type { Batch, ListedBatch, SharedUse, ShelfCard, ShelfCensus } from '~~/shared/api'
import { sentenceOf } from './desk'
import { useLibrary } from './library'
import { useShelf } from './shelf'
import { wholeShelf } from './whole-shelf'
import { emptyRecast, wishOf, type OpenRecast } from '../stages/recast/recast-form'

/** The census over all documents, and plans over many of them. */
export const useAcross = defineStore('across', () => {
  const cards = shallowRef<readonly ShelfCard[]>([])
  /** How many documents there are: more than are listed where no plan takes them all. */
  const total = ref(0)
  const census = shallowRef<ShelfCensus>({ families: [], sizes: [], colors: [] })
  const batches = shallowRef<readonly ListedBatch[]>([])
  const kept = shallowRef<readonly Kept<'wish'>[]>([])
  const of = ref<keyof ShelfCensus>('families')
  const query = ref('')
  /** The row of the census that is looked at. */
  const use = ref<string | null>(null)
  const selected = ref<string[]>([])
  const batch = shallowRef<Batch | null>(null)
  const leftOut = ref<string[]>([])
  const busy = ref(false)
  const message = ref('')
  const swaps = ref<{ from: string; to: string; size: NonNullable<SwapWish['size']>['mode'] }[]>([
    { from: '', to: '', size: 'keep' },
  ])
  const form = ref<OpenRecast>(emptyRecast())
  let timer: ReturnType<typeof setTimeout> | null = null

  const uses = computed(() => {
    const wanted = query.value.trim().toLowerCase()
    return census.value[of.value].filter(each => wanted === '' || each.value.toLowerCase().includes(wanted))
  })
  const chosen = computed((): SharedUse | null => census.value[of.value].find(each => each.value === use.value) ?? null)
  const listed = computed(() =>
    chosen.value ? cards.value.filter(card => chosen.value!.documents.some(each => each.id === card.id)) : cards.value,
  )
  const countIn = (id: string): number | null => chosen.value?.documents.find(each => each.id === id)?.count ?? null

  async function refresh(): Promise<void> {
    try {
      const [shelf, found, plans, wishes] = await Promise.all([
        wholeShelf(),
        $fetch<ShelfCensus>('/api/census'),
        $fetch<ListedBatch[]>('/api/batches'),
        $fetch<Kept<'wish'>[]>('/api/kept/wish'),
        useShelf().fetchFolders(),
      ])
      ;[cards.value, total.value] = [shelf.cards, shelf.total]
      ;[census.value, batches.value, kept.value] = [found, plans, wishes]
    } catch (error) {
      message.value = sentenceOf(error)
    }
  }
  /** Looks at a row, ticks the documents that have it, and begins a wish with it. */
  function choose(value: string): void {
    use.value = use.value === value ? null : value
    if (use.value === null || !chosen.value) return
    selected.value = chosen.value.documents.map(each => each.id)
    if (of.value === 'families') {
      const open = swaps.value.find(each => each.to === '') ?? swaps.value.at(-1)!
      open.from = value
    } else if (of.value === 'sizes') form.value = { ...form.value, sizeLeast: Number(value), sizeMost: Number(value) }
    else if (!form.value.colors.some(each => each.from === value))
      form.value = {
        ...form.value,
        colors: [...form.value.colors, { from: value, to: value, kinds: ['text', 'fill', 'page', 'line'] }],
      }
  }
  function tick(on: boolean): void {
    selected.value = on ? [...new Set([...selected.value, ...listed.value.map(card => card.id)])] : []
  }

  async function guarded(action: () => Promise<unknown>): Promise<void> {
    busy.value = true
    message.value = ''
    try {
      await action()
    } catch (error) {
      message.value = sentenceOf(error)
    }
    busy.value = false
  }

  async function watchBatch(id: string): Promise<void> {
    if (timer) clearTimeout(timer)
    try {
      batch.value = await $fetch<Batch>(`/api/batches/${id}`)
    } catch {
      /* The server may just be starting again: asked anew below. */
    }
    const { state } = batch.value ?? { state: 'planning' }
    if (state === 'planning' || state === 'running' || state === 'paused')
      timer = setTimeout(() => {
        if (batch.value?.id === id || batch.value === null) void watchBatch(id)
      }, 700)
    else await refresh()
  }
  const begin = (request: WishList) =>
    guarded(async () => {
      const { id } = await $fetch<{ id: string }>('/api/batches', {
        method: 'POST',
        body: { request, documents: selected.value },
      })
      leftOut.value = []
      await watchBatch(id)
    })
  const beginSwap = () =>
    begin({
      leftOut: [],
      wishes: swaps.value
        .filter(each => each.from !== '' && each.to !== '')
        .map(each =>
          swapSchema.parse({
            type: 'swap',
            from: { family: each.from },
            to: { family: each.to },
            size: each.size === 'keep' ? undefined : { mode: each.size },
          }),
        ),
    })
  const recastWish = computed(() => recastSchema.safeParse(wishOf({ ...form.value, scope: 'document' }, [], null)))
  const beginRecast = async () => {
    if (recastWish.value.success) await begin({ wishes: [recastWish.value.data], leftOut: [] })
  }

  const apply = () =>
    guarded(async () => {
      await $fetch(`/api/batches/${batch.value!.id}/apply`, { method: 'POST', body: { leftOut: leftOut.value } })
      await watchBatch(batch.value!.id)
    })
  const steer = (how: 'pause' | 'resume' | 'cancel') =>
    guarded(async () => {
      await $fetch(`/api/batches/${batch.value!.id}/steer`, { method: 'POST', body: { how } })
      await watchBatch(batch.value!.id)
    })
  const undo = () =>
    guarded(async () => {
      await $fetch(`/api/batches/${batch.value!.id}/undo`, { method: 'POST' })
      await watchBatch(batch.value!.id)
    })

  async function start(): Promise<void> {
    await Promise.all([refresh(), useLibrary().load()])
  }
  function stop(): void {
    if (timer) clearTimeout(timer)
    timer = null
  }
  function leave(): void {
    stop()
    batch.value = null
    void refresh()
  }

  return {
    cards,
    total,
    census,
    batches,
    kept,
    of,
    query,
    use,
    selected,
    batch,
    leftOut,
    busy,
    message,
    swaps,
    form,
    uses,
    chosen,
    listed,
    countIn,
    recastWish,
    refresh,
    choose,
    tick,
    watchBatch,
    begin,
    beginSwap,
    beginRecast,
    apply,
    steer,
    undo,
    start,
    stop,
    leave,
  }
})
