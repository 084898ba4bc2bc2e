import { defineStore } from 'pinia'
import { keyText, type PlanRow, type RowKey } from '~~/core/change/plan'
import { recastSchema, recastSentence } from '~~/core/change/recast/wish'
import type { Kept } from '~~/shared/kept'
import { useChange } from '../change/use-change'
import { emptyRecast, everyKind, formOf, wishOf, type OpenRecast } from '../stages/recast/recast-form'
import { sentenceOf, useDesk } from './desk'
import { useStyles } from './styles'
import { useWords } from './words'

/** Finding by words and look, and what is made of it. */
export const useRecast = defineStore('recast', () => {
  const desk = useDesk()
  const words = useWords()
  const styles = useStyles()
  const form = ref<OpenRecast>(emptyRecast())
  const change = useChange('recast')
  const plan = computed(() => change.plan)
  const busy = computed(() => change.busy !== '')
  /** What cannot be done is said here, or by the plan. */
  const said = ref('')
  const message = computed({
    get: () => said.value || change.message,
    set: text => {
      said.value = text
      change.message = text
    },
  })
  const done = ref('')
  const wishes = shallowRef<readonly Kept<'wish'>[]>([])
  /** Whether the sheets show what would be. */
  const showsAfter = ref(false)

  const titleOf = (name: string) => styles.list.find(style => style.name === name)?.displayName ?? name
  const parsed = computed(() => recastSchema.safeParse(wishOf(form.value, words.ranges, words.spot)))
  /** The whole wish, or what cannot be read of it. */
  const sentence = computed(() =>
    parsed.value.success
      ? recastSentence(parsed.value.data, titleOf)
      : `This wish cannot be read: ${parsed.value.error.issues[0]?.path.slice(1).join(', ')} ${parsed.value.error.issues[0]?.message}.`,
  )

  async function look(): Promise<void> {
    if (!parsed.value.success) return
    message.value = ''
    done.value = ''
    if (!(await change.make([parsed.value.data]))) return
    desk.walkThrough(change.plan!.rows.filter(isMatch).map(occurrenceOf))
    if (showsAfter.value) change.show()
  }
  const isMatch = (row: PlanRow) => row.places[0]?.from !== undefined
  const occurrenceOf = ({ places: [place], page }: PlanRow) => ({
    part: place!.part,
    node: place!.node,
    start: place!.from!,
    end: place!.to!,
    page: page ?? -1,
    face: '',
    voice: '',
    place: 'body' as const,
  })
  /** The row that the walk has come to. */
  const current = computed((): RowKey | null => {
    const { current: at } = desk
    const row = plan.value?.rows.find(each => each.places[0]?.node === at?.node && each.places[0]?.from === at?.start)
    return at && row ? row.key : null
  })

  /** Walks to a match, or shows the pages as they would be. */
  function goTo(row: PlanRow): void {
    const [place] = row.places
    const index = desk.occurrences.findIndex(each => each.node === place?.node && each.start === place.from)
    if (index >= 0) desk.at = index
  }
  function showAfter(on: boolean): void {
    showsAfter.value = on
    if (on) change.show()
    else desk.dropAfter()
  }
  async function toggle(key: RowKey): Promise<void> {
    const at = desk.current && plan.value?.rows.find(row => keyText(row.key) === keyText(current.value ?? key))
    await change.toggle(key)
    if (!plan.value) return
    desk.walkThrough(plan.value.rows.filter(isMatch).map(occurrenceOf))
    if (at) goTo(at)
    if (showsAfter.value) change.show()
  }

  async function apply(): Promise<void> {
    if (!plan.value) return
    const { places, title } = plan.value
    const changed = await change.apply()
    if (!changed) return
    drop()
    done.value =
      `${title}. ${places === 1 ? 'One place was' : `${places} places were`} changed, ` +
      `as version ${changed.version.number}.`
  }

  /** Lets go of what was found; the wish stays in its form. */
  function drop(): void {
    change.reset()
    showsAfter.value = false
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
    const kept = await $fetch<Kept<'wish'>[]>('/api/kept/wish').catch(() => [])
    wishes.value = kept.filter(each => each.data.wishes.every(wish => wish.type === 'recast'))
  }
  async function keep(name: string): Promise<void> {
    if (!parsed.value.success) return
    try {
      await $fetch('/api/kept/wish', {
        method: 'POST',
        body: { name, data: { wishes: [parsed.value.data], leftOut: [] } },
      })
      done.value = `Kept as “${name}”.`
      await fetchWishes()
    } catch (error) {
      message.value = sentenceOf(error)
    }
  }
  async function forget(id: string): Promise<void> {
    await $fetch(`/api/kept/wish/${id}`, { method: 'DELETE' }).catch(() => null)
    await fetchWishes()
  }
  async function run(wish: Kept<'wish'>): Promise<void> {
    drop()
    const [first] = wish.data.wishes
    form.value = formOf(recastSchema.parse(first))
    await look()
  }

  return {
    form,
    change,
    current,
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
