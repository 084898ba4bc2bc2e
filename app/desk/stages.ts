import { defineStore } from 'pinia'
import type { Stage } from './stage'

/** Every stage registers itself: `stages/<stage>/stage.ts`. */
const found = import.meta.glob<{ readonly stage: Stage }>('../stages/*/stage.ts', { eager: true })
export const stages: readonly Stage[] = Object.values(found)
  .map(each => each.stage)
  .sort((one, other) => one.place - other.place)

/** Which stage is open, and the way from one to another. */
export const useStages = defineStore('stages', () => {
  const router = useRouter()
  const id = ref(stages[0]!.id)
  const open = computed(() => stages.find(stage => stage.id === id.value) ?? stages[0]!)

  /** Opens a stage at once; the address follows, so that quick keys are not lost on the way. */
  function go(to: string): void {
    if (!stages.some(stage => stage.id === to)) return
    if (to !== id.value) open.value.leave?.()
    id.value = to
    const { query } = router.currentRoute.value
    if (query.stage !== to) void router.replace({ query: { ...query, stage: to } })
    // What led here may be gone, and the keyboard with it: it goes on in the tray.
    void nextTick(() => {
      if (document.activeElement === document.body || document.activeElement === null)
        document.getElementById('tray')?.focus()
    })
  }

  /** A document comes onto the desk, at the stage that the address asks for. */
  function begin(asked: unknown): void {
    for (const stage of stages) stage.begin?.()
    id.value = stages.some(stage => stage.id === asked) ? String(asked) : stages[0]!.id
  }

  return { id, open, go, begin }
})
