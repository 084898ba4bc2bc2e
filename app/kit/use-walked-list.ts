import { useVirtualizer } from '@tanstack/vue-virtual'

/** A list that is walked through: what it goes by. */
interface Walked {
  readonly count: () => number
  /** Pixels. */
  readonly rowHeight: number
  /** Entries that stand side by side; one under the other where it is not said. */
  readonly perRow?: number
  /** Where one is; below 0 nowhere yet. */
  readonly at: () => number
  readonly go: (index: number) => void
}

/**
 * A long list in a box of its own: only rows in sight are in the page. Arrow keys go from entry to entry, page keys by what
 * the box holds, Home and End to the ends; wherever one goes, the box follows.
 */
export function useWalkedList({ count, rowHeight, perRow = 1, at, go }: Walked) {
  const scroller = ref<HTMLElement | null>(null)
  const virtual = useVirtualizer(
    computed(() => ({
      count: Math.ceil(count() / perRow),
      getScrollElement: () => scroller.value,
      estimateSize: () => rowHeight,
      overscan: 4,
    })),
  )
  const rows = computed(() => virtual.value.getVirtualItems())
  const height = computed(() => virtual.value.getTotalSize())
  watch(at, index => {
    if (index >= 0 && index < count()) virtual.value.scrollToIndex(Math.floor(index / perRow))
  })
  /** Goes where a key leads, and says whether it is one of those that lead anywhere. */
  function walk(event: KeyboardEvent): boolean {
    const page = Math.max(1, Math.floor((scroller.value?.clientHeight ?? 400) / rowHeight) - 1) * perRow
    const now = at()
    const to: Readonly<Record<string, number>> = {
      ArrowDown: now < 0 ? 0 : now + perRow,
      ArrowUp: now - perRow,
      PageDown: now + page,
      PageUp: now - page,
      Home: 0,
      End: count() - 1,
      ...(perRow > 1 ? { ArrowRight: now + 1, ArrowLeft: now - 1 } : {}),
    }
    const index = to[event.key]
    if (index === undefined) return false
    if (count() > 0) go(Math.max(0, Math.min(index, count() - 1)))
    event.preventDefault()
    event.stopPropagation()
    return true
  }
  return { scroller, rows, height, walk }
}
