<script setup lang="ts">
import Chips from '../../kit/Chips.vue'
import SheetPage from '../../desk/SheetPage.vue'
import { isTyping } from '../../desk/typing'
import { useCompare } from '../../stores/compare'
import { useDesk } from '../../stores/desk'

/** The pages of both documents at a difference: side by side, or laid over one another so that what moved stands out. */
const desk = useDesk()
const compare = useCompare()
const holder = ref<HTMLElement | null>(null)
const room = ref({ width: 600, height: 400 })
let watcher: ResizeObserver | null = null
onMounted(() => {
  watcher = new ResizeObserver(([entry]) => {
    if (entry) room.value = { width: entry.contentRect.width, height: entry.contentRect.height }
  })
  if (holder.value) watcher.observe(holder.value)
})
onBeforeUnmount(() => watcher?.disconnect())

const last = computed(() => Math.max(compare.sheets.length, desk.sheets.length) - 1)
/** The pages that are shown: those of the difference, until another is asked for. */
const pages = ref({ before: 0, after: 0 })
watch(
  () => compare.current,
  now => {
    if (!now) return
    const before = now.before?.page ?? now.after?.page ?? 0
    const after = now.after?.page ?? now.before?.page ?? 0
    pages.value = {
      before: Math.max(0, Math.min(before, compare.sheets.length - 1)),
      after: Math.max(0, Math.min(after, desk.sheets.length - 1)),
    }
  },
  { immediate: true },
)
function turn(by: 1 | -1): void {
  const at = Math.max(0, Math.min(pages.value.after + by, last.value))
  pages.value = { before: Math.min(at, compare.sheets.length - 1), after: Math.min(at, desk.sheets.length - 1) }
}
const before = computed(() => compare.sheets[pages.value.before])
const after = computed(() => desk.sheets[pages.value.after])
const zoom = computed(() => {
  const sheet = after.value ?? before.value
  if (!sheet) return 0.4
  const wide = compare.laid === 'beside' ? (room.value.width - 72) / 2 : room.value.width - 48
  return Math.max(
    0.2,
    Math.min(wide / ((sheet.width * 96) / 72), Math.max(room.value.height - 60, 240) / ((sheet.height * 96) / 72)),
  )
})
/** The sheets that lie there, the one before first; laid over one another where there are both. */
const sides = computed(() => {
  const { before: index, after: now } = pages.value
  const one = before.value && {
    title: `${compare.against}, page ${index + 1}`,
    upper: false,
    shown: { ...before.value, side: 'compare' as const, index, generation: compare.generation },
  }
  const other = after.value && {
    title: `Now, page ${now + 1}`,
    upper: true,
    shown: { ...after.value, side: 'now' as const, index: now, generation: desk.generation },
  }
  if (compare.laid === 'over' && !(one && other)) return []
  return [one, other].filter(each => each !== undefined)
})
function key(event: KeyboardEvent): void {
  if (isTyping(event.target)) return
  const act: Record<string, () => void> = {
    ArrowRight: () => turn(1),
    ArrowLeft: () => turn(-1),
    ArrowDown: () => compare.go(compare.at + 1),
    ArrowUp: () => compare.go(compare.at - 1),
    o: () => {
      compare.laid = compare.laid === 'over' ? 'beside' : 'over'
    },
  }
  const own = act[event.key]
  if (!own) return
  event.preventDefault()
  own()
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col bg-desk" @keydown="key">
    <div
      ref="holder"
      class="min-h-0 flex-1 overflow-auto px-6 pt-3 pb-4"
      tabindex="0"
      aria-label="Both documents: left and right turn pages, up and down go from one difference to the next, O lays one over the other"
    >
      <p v-if="compare.laid === 'over'" class="mb-1 text-[13px] font-medium text-soft">
        Laid over: {{ compare.against }}, page {{ pages.before + 1 }}, and page {{ pages.after + 1 }} now. What is alike
        is white.
      </p>
      <div :class="compare.laid === 'beside' ? 'flex gap-6' : 'laid'">
        <div v-for="each in sides" :key="each.shown.side" :class="{ upper: compare.laid === 'over' && each.upper }">
          <p v-if="compare.laid === 'beside'" class="mb-1 text-[13px] font-medium text-soft">{{ each.title }}</p>
          <SheetPage v-bind="each.shown" :zoom="zoom" :live="true" plain />
        </div>
      </div>
    </div>
    <div
      class="flex min-h-[36px] shrink-0 flex-wrap items-center gap-3 border-t border-rule bg-paper px-4 text-[13px] text-soft"
    >
      <button type="button" class="link" :disabled="pages.after <= 0" @click="turn(-1)">Page before</button>
      <button type="button" class="link" :disabled="pages.after >= last" @click="turn(1)">Page after</button>
      <Chips
        v-model="compare.laid"
        label="How pages lie"
        :options="[
          { id: 'beside', title: 'Side by side' },
          { id: 'over', title: 'Laid over' },
        ]"
      />
      <button type="button" class="link" @click="compare.walking = false">Back to the sheets</button>
    </div>
  </div>
</template>

<style scoped>
/* Where both are alike their difference is black, and white again when it is turned about. */
.laid {
  position: relative;
  display: inline-block;
  filter: invert(1);
  isolation: isolate;
}
.upper {
  position: absolute;
  inset: 0;
  mix-blend-mode: difference;
}
</style>
