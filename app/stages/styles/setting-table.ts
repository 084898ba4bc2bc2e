import { useDebounceFn } from '@vueuse/core'
import type { Wish } from '~~/core/change/registry'
import { useStyles } from '../../stores/styles'

/**
 * A table whose rows are set anew, with the sheets following: what was changed by row, and the wish that it comes to, or null
 * for none yet.
 */
export function useSettingTable<Setting extends object>(
  wishOf: (changes: Readonly<Record<string, Setting>>) => Wish | null,
) {
  const styles = useStyles()
  const changes = shallowRef<Readonly<Record<string, Setting>>>({})
  const wish = computed(() => wishOf(changes.value))
  // What is sent to a worker holds nothing that watches it.
  const plain = (): Wish[] => (wish.value ? [JSON.parse(JSON.stringify(wish.value)) as Wish] : [])
  const preview = useDebounceFn(() => {
    if (wish.value) void styles.preview(plain())
    else styles.dropPreview()
  }, 60)
  watch(wish, preview)
  onBeforeUnmount(() => styles.dropPreview())

  const changed = (key: string): Partial<Setting> => changes.value[key] ?? {}
  function set(key: string, values: Partial<Setting>): void {
    changes.value = { ...changes.value, [key]: { ...changes.value[key], ...values } as Setting }
  }
  /** Sets what was typed into a field, where it is a number from 0 up. */
  function number(key: string, event: Event, say: (value: number) => Partial<Setting>): void {
    const value = Number.parseFloat((event.target as HTMLInputElement).value.replace(',', '.'))
    if (Number.isFinite(value) && value >= 0) set(key, say(value))
  }
  function show(): void {
    if (wish.value) void styles.propose(plain())
  }
  return { wish, changed, set, number, show }
}
