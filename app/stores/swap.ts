import { defineStore } from 'pinia'
import type { SwapPlan, SwapRequest, SwapWish } from '~~/core/plan/plan'
import type { SheetSize } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'
import { useWords } from './words'

/** A wish as it is being made: either end may still be open. */
export interface OpenWish { from: string, fromFace: string | null, to: string }

/** The swap that is being planned. */
export const useSwap = defineStore('swap', () => {
  const desk = useDesk()
  const wishes = ref<OpenWish[]>([{ from: '', fromFace: null, to: '' }])
  const struck = ref<string[]>([])
  const faces = ref<Record<string, string>>({})
  const symbols = ref(false)
  const plan = shallowRef<SwapPlan | null>(null)
  const sheetsAfter = shallowRef<readonly SheetSize[]>([])
  const planning = ref(false)
  const applying = ref(false)
  const message = ref('')
  const done = ref<{ title: string, version: number, remains: number } | null>(null)
  /** Raised with every plan: what is drawn of the page after belongs to one. */
  const generation = ref(0)

  const complete = computed(() => wishes.value.length > 0 && wishes.value.every(wish => wish.from !== '' && wish.to !== ''))

  function request(): SwapRequest {
    const list = wishes.value.map((wish): SwapWish => ({ from: wish.fromFace ? { family: wish.from, style: wish.fromFace } : { family: wish.from }, to: { family: wish.to } }))
    return { wishes: list, struck: [...struck.value], faces: { ...faces.value }, symbols: symbols.value }
  }

  async function makePlan(): Promise<void> {
    if (!complete.value || desk.state !== 'open') return
    planning.value = true
    message.value = ''
    done.value = null
    try {
      const planned = await desk.engine!.ask('plan', { request: request() })
      plan.value = planned.plan
      sheetsAfter.value = planned.sheets
      generation.value++
    }
    catch (error) {
      plan.value = null
      message.value = sentenceOf(error)
    }
    planning.value = false
  }

  async function apply(): Promise<void> {
    if (!plan.value || !desk.info) return
    applying.value = true
    message.value = ''
    // What was typed a moment ago is stored first: the swap is made on top of it.
    await useWords().flush()
    const { id, version } = desk.info.document
    const { title } = plan.value
    const families = wishes.value.filter(wish => wish.fromFace === null).map(wish => wish.from.toLowerCase())
    try {
      await $fetch(`/api/documents/${id}/swap`, { method: 'POST', body: { base: version, request: request() } })
      await desk.load(id)
      reset()
      const census = desk.census
      const remains = census ? census.faces.filter(face => families.includes(face.family.toLowerCase())).length + census.unused.filter(face => families.includes(face.family.toLowerCase())).length : 0
      done.value = { title, version: version + 1, remains }
    }
    catch (error) {
      message.value = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) {
        // The other change is shown, and the wish is kept: it is planned anew on what is there now.
        const kept = message.value
        await desk.load(id)
        await makePlan()
        message.value = kept
      }
    }
    applying.value = false
  }

  function toggle(row: string): void {
    struck.value = struck.value.includes(row) ? struck.value.filter(each => each !== row) : [...struck.value, row]
    void makePlan()
  }

  function reset(): void {
    wishes.value = [{ from: '', fromFace: null, to: '' }]
    struck.value = []
    faces.value = {}
    symbols.value = false
    plan.value = null
    message.value = ''
    done.value = null
  }

  return { wishes, struck, faces, symbols, plan, sheetsAfter, planning, applying, message, done, generation, complete, makePlan, apply, toggle, reset }
})
