import { defineStore } from 'pinia'
import { keyText, type AnyWish, type RowKey, type WishList } from '~~/core/change/plan'
import { usualLimits, type RepairOption, type RepairTarget } from '~~/core/change/repair/target'
import type { Repair } from '~~/core/change/repair/wish'
import { sparedKey } from '~~/core/change/swap/wish'
import type { Changed, RecordedPlan } from '~~/shared/api'
import { sentenceOf, useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import type { SheetSize } from '../workers/messages'

/** Who plans: each has a plan of its own, and pages of its own. */
export type ChangeId = 'swap' | 'type' | 'styles' | 'house' | 'recast' | 'clean-up' | 'proof'

interface Place {
  readonly part: string
  readonly node: number
}
const samePlace = (one: Place, other: Place) => one.part === other.part && one.node === other.node

/** Plain data: what a form holds cannot be posted to a worker. */
const plainly = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** Repairs at once are tried for so many places at most. */
const repairLimit = 60

/** The way from a wish to a stored version: planned, shown, left out in part, repaired, carried out. The same for every kind. */
function change(id: ChangeId) {
  const desk = useDesk()
  const words = useWords()
  const wishes = shallowRef<readonly AnyWish[]>([])
  const leftOut = shallowRef<readonly RowKey[]>([])
  const repairs = shallowRef<readonly Repair[]>([])
  /** How far repairs may go. */
  const limits = ref<RepairTarget['limits']>({ ...usualLimits })
  const plan = shallowRef<RecordedPlan | null>(null)
  const sheetsAfter = shallowRef<readonly SheetSize[]>([])
  /** What it is busy with. */
  const busy = ref<'' | 'planning' | 'applying'>('')
  const message = ref('')
  /** Raised with every plan: what is drawn of the pages after belongs to one. */
  const generation = ref(0)
  /** The walk through the pages of the plan is open. */
  const walking = ref(false)
  let asked = 0

  const request = (list: readonly AnyWish[]): WishList =>
    plainly({
      wishes: [...list, ...repairs.value.map(repair => ({ type: 'repair', repair }))],
      leftOut: leftOut.value,
    })

  /** Plans wishes with all they do, to be looked at before they are carried out. What was typed is stored first. */
  async function make(list: readonly AnyWish[] = wishes.value): Promise<boolean> {
    const { engine } = desk
    if (!engine || desk.state !== 'open' || list.length === 0) return false
    const own = ++asked
    busy.value = 'planning'
    message.value = ''
    try {
      await words.flush()
      const planned = await engine.ask('plan', { id, request: request(list), effects: true })
      if (own !== asked) return false
      wishes.value = list
      plan.value = planned.plan
      sheetsAfter.value = planned.sheets ?? []
      generation.value++
      return true
    } catch (error) {
      if (own === asked) {
        plan.value = null
        message.value = sentenceOf(error)
      }
      return false
    } finally {
      if (own === asked) busy.value = ''
    }
  }

  let wanted: readonly AnyWish[] | null = null
  let drawing = false
  /** Shows on the sheets what wishes would do; nothing of their effects is worked out. The last ones asked for win. */
  async function preview(list: readonly AnyWish[]): Promise<void> {
    wanted = list
    if (drawing) return
    drawing = true
    while (wanted !== null && desk.engine && desk.state === 'open') {
      const next: readonly AnyWish[] = wanted
      wanted = null
      const own = asked
      try {
        await desk.engine.ask('plan', { id, request: plainly({ wishes: next, leftOut: [] }), effects: false })
        // What was let go of meanwhile is not shown; what was asked for since is.
        if (own !== asked) continue
        message.value = ''
        desk.showAfter(id, null)
      } catch (error) {
        if (own === asked) message.value = sentenceOf(error)
      }
    }
    drawing = false
  }

  /** Draws the sheets as the plan would make them. */
  function show(): void {
    if (plan.value) desk.showAfter(id, sheetsAfter.value)
  }
  function hide(): void {
    asked++
    wanted = null
    desk.dropAfter()
  }

  /** Leaves places out, or takes them in again, and plans anew. */
  function leave(keys: readonly RowKey[], out: boolean): Promise<boolean> {
    const texts = new Set(keys.map(keyText))
    const others = leftOut.value.filter(key => !texts.has(keyText(key)))
    leftOut.value = out ? [...others, ...keys] : others
    return make()
  }
  const isLeft = (key: RowKey): boolean => leftOut.value.some(each => keyText(each) === keyText(key))
  const toggle = (key: RowKey): Promise<boolean> => leave([key], !isLeft(key))
  const spare = (place: Place): Promise<boolean> => toggle(sparedKey(place.part, place.node))
  const isSpared = (place: Place): boolean => isLeft(sparedKey(place.part, place.node))
  const spared = computed(() => leftOut.value.filter(key => key.what === 'paragraph'))

  function repairsOf(target: Pick<RepairTarget, 'part' | 'node' | 'of'>): Promise<readonly RepairOption[]> {
    return desk.engine!.ask('repairs', {
      id,
      target: { part: target.part, node: target.node, of: target.of, limits: { ...limits.value } },
    })
  }
  const withRepair = ({ repair }: RepairOption) => [...repairs.value.filter(each => !samePlace(each, repair)), repair]
  function repair(option: RepairOption): Promise<boolean> {
    repairs.value = withRepair(option)
    return make()
  }
  function dropRepairs(): Promise<boolean> {
    repairs.value = []
    return make()
  }

  /** Mends every frame that runs over and every title that wraps anew, each by the gentlest way that does it. */
  async function repairAll(): Promise<number> {
    if (!plan.value?.effects) return 0
    const { overset, paragraphs } = plan.value.effects
    const targets = [
      ...overset
        .filter(frame => frame.lines > frame.linesBefore)
        .map(({ part, node }) => ({ part, node, of: 'frame' as const })),
      ...paragraphs
        .filter(each => each.title && each.linesAfter > each.linesBefore)
        .map(({ part, node }) => ({ part, node, of: 'paragraph' as const })),
    ]
    busy.value = 'planning'
    let count = 0
    for (const target of targets.slice(0, repairLimit)) {
      const mending = (await repairsOf(target)).find(option => option.mends)
      if (!mending) continue
      repairs.value = withRepair(mending)
      count++
    }
    await make()
    return count
  }

  /**
   * Carries wishes out as one version: those of the plan, or others at once. What was typed is stored first. Where
   * somebody changed the document meanwhile, theirs is shown, and the wishes are kept and planned anew.
   */
  async function apply(list: readonly AnyWish[] | null = null): Promise<Changed | null> {
    if (!desk.info) return null
    busy.value = 'applying'
    message.value = ''
    const asIs = list === null
    const body = asIs ? request(wishes.value) : plainly({ wishes: list, leftOut: [] })
    try {
      await words.flush()
      const { id: document, version } = desk.info.document
      const changed = await $fetch<Changed>(`/api/documents/${document}/changes`, {
        method: 'POST',
        body: { base: version, request: body },
      })
      hide()
      await desk.load(document)
      if (asIs) reset()
      return changed
    } catch (error) {
      const said = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) {
        hide()
        await desk.load(desk.info.document.id)
        if (asIs) await make()
      }
      message.value = said
      return null
    } finally {
      busy.value = ''
    }
  }

  /** Lets go of what was planned; its pages with it. */
  function reset(): void {
    hide()
    plan.value = null
    wishes.value = []
    leftOut.value = []
    repairs.value = []
    sheetsAfter.value = []
    message.value = ''
    walking.value = false
    void desk.engine?.ask('drop', { id }).catch(() => null)
  }

  return {
    wishes,
    leftOut,
    repairs,
    limits,
    plan,
    sheetsAfter,
    busy,
    message,
    generation,
    walking,
    spared,
    make,
    preview,
    show,
    hide,
    leave,
    isLeft,
    toggle,
    spare,
    isSpared,
    repairsOf,
    repair,
    dropRepairs,
    repairAll,
    apply,
    reset,
  }
}

const ids: readonly ChangeId[] = ['swap', 'type', 'styles', 'house', 'recast', 'clean-up', 'proof']
const stores = new Map(ids.map(id => [id, defineStore(`change ${id}`, () => change(id))]))

/** The plan of one of those who plan. */
export const useChange = (id: ChangeId) => stores.get(id)!()

/** Lets go of all plans: another document comes onto the desk. */
export function resetChanges(): void {
  for (const id of ids) useChange(id).reset()
}
