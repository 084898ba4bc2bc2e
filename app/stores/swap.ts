import { defineStore } from 'pinia'
import type { LookCriteria, MatchScope } from '~~/core/census/criteria'
import type { LeadingMode, SizeMode } from '~~/core/change/swap/optical-size'
import { usualLimits, type RepairOption, type RepairTarget } from '~~/core/change/repair/find-repairs'
import type { Repair, SwapPlan, SwapRequest, SwapWish } from '~~/core/change/plan'
import type { SheetSize } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'
import { useWords } from './words'

/** Limits of a wish as a form holds them: '' does not matter. */
export interface OpenLimits {
  style: string
  role: string
  place: string
  slot: string
  script: string
  language: string
  from: number | null
  to: number | null
  selection: boolean
}
const noLimits = (): OpenLimits => ({
  style: '',
  role: '',
  place: '',
  slot: '',
  script: '',
  language: '',
  from: null,
  to: null,
  selection: false,
})

/** A wish as it is being made: either end may still be open. */
export interface OpenWish {
  from: string
  fromFace: string | null
  to: string
  size: SizeMode
  step: number
  least: number
  most: number
  leading: LeadingMode
  limited: boolean
  limits: OpenLimits
}
export const openWish = (from = '', fromFace: string | null = null, to = ''): OpenWish => ({
  from,
  fromFace,
  to,
  size: 'keep',
  step: 0.1,
  least: 75,
  most: 125,
  leading: 'as-is',
  limited: false,
  limits: noLimits(),
})

/** The swap that is being planned. */
export const useSwap = defineStore('swap', () => {
  const desk = useDesk()
  const words = useWords()
  const wishes = ref<OpenWish[]>([openWish()])
  const struck = ref<string[]>([])
  const kept = ref<string[]>([])
  const spared = ref<{ part: string; node: number }[]>([])
  const repairs = ref<Repair[]>([])
  const faces = ref<Record<string, string>>({})
  const symbols = ref(false)
  /** How far repairs may go. */
  const limits = ref<RepairTarget['limits']>({ ...usualLimits })
  const plan = shallowRef<SwapPlan | null>(null)
  const sheetsAfter = shallowRef<readonly SheetSize[]>([])
  const planning = ref(false)
  const applying = ref(false)
  /** A family of the library is being looked at on the pages. */
  const previewing = ref('')
  const message = ref('')
  const done = ref<{ title: string; version: number; remains: number } | null>(null)
  /** Raised with every plan: what is drawn of the page after belongs to one. */
  const generation = ref(0)

  const complete = computed(
    () => wishes.value.length > 0 && wishes.value.every(wish => wish.from !== '' && wish.to !== ''),
  )

  function within({ limited, limits: own }: OpenWish): SwapWish['within'] {
    if (!limited) return undefined
    const look: Record<string, string> = {}
    const put = (key: keyof LookCriteria, value: string) => {
      if (value !== '') look[key] = value
    }
    put('paragraphStyle', own.style)
    put('role', own.role)
    put('place', own.place)
    put('slot', own.slot)
    put('script', own.script)
    put('language', own.language.trim())
    const scope: MatchScope =
      own.selection && words.ranges.length > 0
        ? { kind: 'ranges', ranges: words.ranges.map(({ part, node, from, to }) => ({ part, node, from, to })) }
        : own.from !== null && own.from > 0
          ? { kind: 'pages', from: own.from - 1, to: Math.max(own.to ?? own.from, own.from) - 1 }
          : { kind: 'document' }
    return { look: look as LookCriteria, scope }
  }

  function wishOf(wish: OpenWish, to = wish.to): SwapWish {
    const limitsOf = within(wish)
    return {
      from: wish.fromFace ? { family: wish.from, style: wish.fromFace } : { family: wish.from },
      to: { family: to },
      ...(limitsOf === undefined ? {} : { within: limitsOf }),
      ...(wish.size === 'keep'
        ? {}
        : { size: { mode: wish.size, step: wish.step, least: wish.least, most: wish.most } }),
      ...(wish.leading === 'as-is' ? {} : { leading: wish.leading }),
    }
  }

  function request(): SwapRequest {
    // Plain data: what a form holds cannot be posted to a worker.
    return JSON.parse(
      JSON.stringify({
        wishes: wishes.value.map(wish => wishOf(wish)),
        struck: struck.value,
        faces: faces.value,
        symbols: symbols.value,
        kept: kept.value,
        spared: spared.value,
        repairs: repairs.value,
      }),
    ) as SwapRequest
  }

  async function makePlan(): Promise<void> {
    if (!complete.value || desk.state !== 'open') return
    planning.value = true
    message.value = ''
    done.value = null
    endPreview()
    try {
      const planned = await desk.engine!.ask('plan', { request: request() })
      plan.value = planned.plan
      sheetsAfter.value = planned.sheets
      generation.value++
    } catch (error) {
      plan.value = null
      message.value = sentenceOf(error)
    }
    planning.value = false
  }

  let wanted = ''
  let drawing = false
  /**
   * Shows a family of the library on the pages that are looked at, in place of what a wish lets go. The last one
   * asked for wins.
   */
  async function preview(index: number, family: string): Promise<void> {
    const wish = wishes.value[index]
    if (!wish || wish.from === '' || family === '' || desk.state !== 'open') return
    wanted = family
    if (drawing) return
    drawing = true
    while (wanted !== '' && wanted !== previewing.value) {
      const next = wanted
      try {
        await desk.engine!.ask('previewSwap', {
          request: {
            ...request(),
            wishes: [JSON.parse(JSON.stringify(wishOf(wish, next))) as SwapWish],
            spared: [],
            repairs: [],
            kept: [],
            struck: [],
            faces: {},
          },
        })
        if (wanted === '') break
        previewing.value = next
        desk.showAfter(null)
      } catch {
        break
      }
    }
    drawing = false
  }
  function endPreview(): void {
    wanted = ''
    if (previewing.value === '') return
    previewing.value = ''
    desk.dropAfter()
  }

  async function apply(): Promise<void> {
    if (!plan.value || !desk.info) return
    applying.value = true
    message.value = ''
    // What was typed a moment ago is stored first: the swap is made on top of it.
    await words.flush()
    const { id, version } = desk.info.document
    const { title } = plan.value
    const whole = kept.value.length + spared.value.length === 0
    const families = wishes.value
      .filter(wish => wish.fromFace === null && !wish.limited)
      .map(wish => wish.from.toLowerCase())
    try {
      await $fetch(`/api/documents/${id}/swap`, { method: 'POST', body: { base: version, request: request() } })
      await desk.load(id)
      reset()
      const census = desk.census
      const remains = census
        ? census.faces.filter(face => families.includes(face.family.toLowerCase())).length +
          census.unused.filter(face => families.includes(face.family.toLowerCase())).length
        : 0
      done.value = {
        title,
        version: version + 1,
        remains: whole && families.length > 0 ? remains : Math.max(remains, 1),
      }
    } catch (error) {
      message.value = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) {
        // The other change is shown, and the wish is kept: it is planned anew on what is there now.
        const said = message.value
        await desk.load(id)
        await makePlan()
        message.value = said
      }
    }
    applying.value = false
  }

  const toggled = <T>(list: readonly T[], value: T, same: (a: T, b: T) => boolean = (a, b) => a === b): T[] =>
    list.some(each => same(each, value)) ? list.filter(each => !same(each, value)) : [...list, value]
  function toggle(row: string): void {
    struck.value = toggled(struck.value, row)
    void makePlan()
  }
  function toggleGroup(id: string): void {
    kept.value = toggled(kept.value, id)
    void makePlan()
  }
  /** Strikes or takes back all rows of a kind. */
  function toggleKind(rows: readonly string[], included: boolean): void {
    struck.value = included
      ? [...new Set([...struck.value, ...rows])]
      : struck.value.filter(each => !rows.includes(each))
    void makePlan()
  }
  const samePlace = (a: { part: string; node: number }, b: { part: string; node: number }) =>
    a.part === b.part && a.node === b.node
  function spare(place: { part: string; node: number }): Promise<void> {
    spared.value = toggled(spared.value, { part: place.part, node: place.node }, samePlace)
    return makePlan()
  }
  const isSpared = (place: { part: string; node: number }) => spared.value.some(each => samePlace(each, place))

  function repairsOf(target: Pick<RepairTarget, 'part' | 'node' | 'of'>): Promise<readonly RepairOption[]> {
    return desk.engine!.ask('repairs', {
      target: { part: target.part, node: target.node, of: target.of, limits: { ...limits.value } },
    })
  }
  function repair(option: RepairOption): Promise<void> {
    repairs.value = [...repairs.value.filter(each => !samePlace(each, option.repair)), option.repair]
    return makePlan()
  }
  function dropRepair(place: { part: string; node: number }): Promise<void> {
    repairs.value = repairs.value.filter(each => !samePlace(each, place))
    return makePlan()
  }

  /** Mends every frame that runs over and every title that wraps anew, each by the gentlest way that does it. */
  async function repairAll(): Promise<number> {
    if (!plan.value?.effects) return 0
    const { overset, paragraphs } = plan.value.effects
    const targets = [
      ...overset
        .filter(frame => frame.lines > frame.linesBefore)
        .map(frame => ({ part: frame.part, node: frame.node, of: 'frame' as const })),
      ...paragraphs
        .filter(each => each.title && each.linesAfter > each.linesBefore)
        .map(each => ({ part: each.part, node: each.node, of: 'paragraph' as const })),
    ]
    planning.value = true
    let count = 0
    for (const target of targets.slice(0, 60)) {
      const mending = (await repairsOf(target)).find(option => option.mends)
      if (!mending) continue
      repairs.value = [...repairs.value.filter(each => !samePlace(each, mending.repair)), mending.repair]
      count++
    }
    await makePlan()
    return count
  }

  function reset(): void {
    endPreview()
    wishes.value = [openWish()]
    struck.value = []
    kept.value = []
    spared.value = []
    repairs.value = []
    faces.value = {}
    symbols.value = false
    plan.value = null
    message.value = ''
    done.value = null
  }

  return {
    wishes,
    struck,
    kept,
    spared,
    repairs,
    limits,
    faces,
    symbols,
    plan,
    sheetsAfter,
    planning,
    applying,
    previewing,
    message,
    done,
    generation,
    complete,
    request,
    makePlan,
    preview,
    endPreview,
    apply,
    toggle,
    toggleGroup,
    toggleKind,
    spare,
    isSpared,
    repairsOf,
    repair,
    dropRepair,
    repairAll,
    reset,
  }
})
