import { defineStore } from 'pinia'
import type { RecastPlan, RecastRow } from '~~/core/change/recast/plan-recast'
import { recastRequestSchema, recastSentence, type RecastRequest } from '~~/core/change/recast/wish'
import type { KeptWish } from '~~/server/store/kept-wishes'
import { emptyRecast, everyKind, formOf, requestOf, type OpenRecast } from '../stages/recast/recast-form'
import type { SheetSize } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'
import { useStyles } from './styles'
import { useWords } from './words'

/** Finding by words and look, and what is made of it. */
export const useRecast = defineStore('recast', () => {
  const desk = useDesk()
  const words = useWords()
  const styles = useStyles()
  const form = ref<OpenRecast>(emptyRecast())
  const struck = ref<string[]>([])
  const plan = shallowRef<RecastPlan | null>(null)
  const sheetsAfter = shallowRef<readonly SheetSize[]>([])
  const busy = ref(false)
  const message = ref('')
  const done = ref('')
  const wishes = shallowRef<readonly KeptWish[]>([])
  /** Whether the sheets show what would be. */
  const showsAfter = ref(false)

  const titleOf = (name: string) => styles.list.find(style => style.name === name)?.displayName ?? name
  const parsed = computed(() =>
    recastRequestSchema.safeParse(requestOf(form.value, words.ranges, words.spot, struck.value)),
  )
  /** The whole wish, or what cannot be read of it. */
  const sentence = computed(() =>
    parsed.value.success
      ? recastSentence(parsed.value.data, titleOf)
      : `This wish cannot be read: ${parsed.value.error.issues[0]?.path.slice(1).join(', ')} ${parsed.value.error.issues[0]?.message}.`,
  )

  async function look(): Promise<void> {
    if (!desk.engine || !parsed.value.success) return
    await words.flush()
    busy.value = true
    message.value = ''
    done.value = ''
    try {
      const planned = await desk.engine.ask('recast', {
        request: JSON.parse(JSON.stringify(parsed.value.data)) as RecastRequest,
        effects: true,
      })
      plan.value = planned.plan
      sheetsAfter.value = planned.sheets
      const places = planned.plan.rows.filter(row => row.places.length > 0)
      desk.walkThrough(places.map(occurrenceOf))
      if (showsAfter.value) desk.showAfter(planned.sheets)
    } catch (error) {
      plan.value = null
      message.value = sentenceOf(error)
    }
    busy.value = false
  }
  const occurrenceOf = (row: RecastRow) => {
    const [place] = row.places
    return {
      part: place!.part,
      node: place!.node,
      start: place!.from,
      end: place!.to,
      page: row.page,
      face: '',
      voice: '',
      place: 'body' as const,
    }
  }

  /** Walks to a match, or shows the pages as they would be. */
  function goTo(row: RecastRow): void {
    const [place] = row.places
    const index = desk.occurrences.findIndex(each => each.node === place?.node && each.start === place.from)
    if (index >= 0) desk.at = index
  }
  function showAfter(on: boolean): void {
    showsAfter.value = on
    if (on && plan.value) desk.showAfter(sheetsAfter.value)
    else desk.dropAfter()
  }
  function toggle(id: string): void {
    struck.value = struck.value.includes(id) ? struck.value.filter(each => each !== id) : [...struck.value, id]
    void look()
  }

  async function apply(): Promise<void> {
    if (!plan.value || !desk.info || !parsed.value.success) return
    busy.value = true
    message.value = ''
    const { id, version } = desk.info.document
    const { places, title } = plan.value
    try {
      await $fetch(`/api/documents/${id}/recast`, {
        method: 'POST',
        body: { base: version, request: parsed.value.data },
      })
      drop()
      await desk.load(id)
      done.value = `${title}. ${places === 1 ? 'One place was' : `${places} places were`} changed, as version ${version + 1}.`
    } catch (error) {
      message.value = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) {
        const said = message.value
        drop()
        await desk.load(id)
        message.value = said
      }
    }
    busy.value = false
  }

  /** Lets go of what was found; the wish stays in its form. */
  function drop(): void {
    plan.value = null
    struck.value = []
    showsAfter.value = false
    desk.dropAfter()
    desk.walkThrough([])
  }
  function clear(): void {
    form.value = emptyRecast()
    message.value = ''
    done.value = ''
    drop()
  }

  /** Fills the criteria with what the selected text looks like: where is looked stays as it is. */
  async function likeSelected(what: 'look' | 'words'): Promise<void> {
    const { spot } = words
    const near = spot
      ? await desk.engine?.ask('ranges', {
          one: { ...spot, offset: Math.max(spot.offset - 1, 0) },
          other: { ...spot, offset: spot.offset + 1 },
        })
      : undefined
    const ranges = words.hasSelection ? words.ranges : (near ?? [])
    const found =
      ranges.length > 0
        ? await desk.engine?.ask('criteriaAt', { ranges: JSON.parse(JSON.stringify(ranges)) as typeof ranges })
        : null
    if (!found) {
      message.value = 'Select text on the sheets first, or put the caret into it.'
      return
    }
    message.value = ''
    if (what === 'words') form.value = { ...form.value, text: found.text.slice(0, 1000), expression: false }
    else {
      const { look: own } = found
      form.value = {
        ...form.value,
        family: own.family ?? '',
        face: own.face ?? '',
        sizeLeast: own.size?.least ?? null,
        sizeMost: own.size?.most ?? null,
        paragraphStyle: own.paragraphStyle ?? '',
        characterStyle: own.characterStyle ?? '',
      }
    }
  }

  async function fetchWishes(): Promise<void> {
    wishes.value = (await $fetch<KeptWish[]>('/api/wishes').catch(() => [])).filter(wish => wish.kind === 'recast')
  }
  async function keep(name: string): Promise<void> {
    if (!parsed.value.success) return
    try {
      await $fetch('/api/wishes', {
        method: 'POST',
        body: { name, wish: { kind: 'recast', request: { ...parsed.value.data, struck: [] } } },
      })
      done.value = `Kept as “${name}”.`
      await fetchWishes()
    } catch (error) {
      message.value = sentenceOf(error)
    }
  }
  async function forget(id: string): Promise<void> {
    await $fetch(`/api/wishes/${id}`, { method: 'DELETE' }).catch(() => null)
    await fetchWishes()
  }
  async function run(wish: KeptWish): Promise<void> {
    drop()
    form.value = formOf(wish.request as RecastRequest)
    await look()
  }

  return {
    form,
    struck,
    plan,
    busy,
    message,
    done,
    wishes,
    showsAfter,
    parsed,
    sentence,
    everyKind,
    look,
    goTo,
    showAfter,
    toggle,
    apply,
    drop,
    clear,
    likeSelected,
    fetchWishes,
    keep,
    forget,
    run,
  }
})
