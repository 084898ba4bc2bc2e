import { defineStore } from 'pinia'
import type { LookCriteria, MatchScope } from '~~/core/census/criteria'
import { sameFamily } from '~~/core/document/font-family'
import type { LeadingMode, SizeMode } from '~~/core/change/swap/optical-size'
import { swapSchema, type SwapWish } from '~~/core/change/swap/wish'
import { useChange } from '../change/use-change'
import { useDesk } from './desk'
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

/** A face of the old family, and the face of the new one that was chosen for it by hand. */
interface ChosenFace {
  readonly family: string
  readonly style: string
  readonly slot: string
  readonly to: string
}

/** The swap that is being planned. */
export const useSwap = defineStore('swap', () => {
  const desk = useDesk()
  const words = useWords()
  const change = useChange('swap')
  const wishes = ref<OpenWish[]>([openWish()])
  const faces = ref<ChosenFace[]>([])
  const symbols = ref(false)
  /** A family of the library is being looked at on the pages. */
  const previewing = ref('')
  const done = ref<{ title: string; version: number; remains: number } | null>(null)

  const plan = computed(() => change.plan)
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
    return swapSchema.parse({
      type: 'swap',
      from: wish.fromFace ? { family: wish.from, style: wish.fromFace } : { family: wish.from },
      to: { family: to },
      within: within(wish),
      size: wish.size === 'keep' ? undefined : { mode: wish.size, step: wish.step, least: wish.least, most: wish.most },
      leading: wish.leading === 'as-is' ? undefined : wish.leading,
      faces: faces.value
        .filter(face => sameFamily(face.family, wish.from))
        .map(({ style, slot, to: chosen }) => ({ style, slot, to: chosen })),
      symbols: symbols.value,
    })
  }

  async function makePlan(): Promise<void> {
    if (!complete.value) return
    done.value = null
    endPreview()
    await change.make(wishes.value.map(wish => wishOf(wish)))
  }

  /** Shows a family of the library on the pages that are looked at, in place of what a wish lets go. */
  async function preview(index: number, family: string): Promise<void> {
    const wish = wishes.value[index]
    if (!wish || wish.from === '' || family === '') return
    previewing.value = family
    const looked: SwapWish = { ...wishOf(wish, family), faces: [] }
    await change.preview([looked])
  }
  function endPreview(): void {
    if (previewing.value === '') return
    previewing.value = ''
    change.hide()
  }

  async function apply(): Promise<void> {
    if (!plan.value) return
    const { title } = plan.value
    const whole = change.leftOut.every(key => key.what !== 'group' && key.what !== 'paragraph')
    const families = wishes.value
      .filter(wish => wish.fromFace === null && !wish.limited)
      .map(wish => wish.from.toLowerCase())
    const changed = await change.apply()
    if (!changed) return
    reset()
    const { census } = desk
    const named = [...(census?.faces ?? []), ...(census?.unused ?? [])]
    const remains = named.filter(({ family }) => families.includes(family.toLowerCase())).length
    done.value = {
      title,
      version: changed.version.number,
      remains: whole && families.length > 0 ? remains : Math.max(remains, 1),
    }
  }

  function chooseFace(face: ChosenFace): void {
    const same = (other: ChosenFace) =>
      other.slot === face.slot && other.style === face.style && sameFamily(other.family, face.family)
    faces.value = [...faces.value.filter(other => !same(other)), face]
    void makePlan()
  }

  /** Begins with a family that shall go, from wherever it was met; with another one it is planned at once. */
  function begin(family: string, to = ''): void {
    reset()
    wishes.value = [openWish(family, null, to)]
    if (to !== '') void makePlan()
  }

  /** Another wish: what was left out and repaired belonged to the one before. */
  function rewish(): void {
    const list = wishes.value
    change.reset()
    faces.value = []
    wishes.value = list
    void makePlan()
  }

  function reset(): void {
    endPreview()
    change.reset()
    wishes.value = [openWish()]
    faces.value = []
    symbols.value = false
    done.value = null
  }

  return {
    change,
    wishes,
    faces,
    symbols,
    plan,
    previewing,
    done,
    complete,
    makePlan,
    preview,
    endPreview,
    apply,
    chooseFace,
    begin,
    rewish,
    reset,
  }
})
