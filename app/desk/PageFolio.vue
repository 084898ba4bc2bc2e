<script setup lang="ts">
import { ZoomIn, ZoomOut } from '../kit/icons'

/** Which page is looked at, and how large: the beginning of every folio line. Pages count from 0. */
const props = withDefaults(defineProps<{ page: number; pages: number; zoom: number; title?: string }>(), {
  title: 'Page',
})
const emit = defineEmits<{ go: [page: number]; fit: []; zoom: [factor: number] }>()
const steps = [0.25, 0.35, 0.5, 0.6, 0.7, 0.86, 1, 1.25, 1.5, 2, 3, 4, 6, 8, 12, 16]

function zoomBy(direction: 1 | -1): void {
  const next =
    direction > 0 ? steps.find(step => step > props.zoom + 0.001) : steps.findLast(step => step < props.zoom - 0.001)
  if (next !== undefined) emit('zoom', next / props.zoom)
}
function jump(event: Event): void {
  const field = event.target as HTMLInputElement
  const number = Number.parseInt(field.value, 10)
  if (number >= 1 && number <= props.pages) emit('go', number - 1)
  else field.value = String(props.page + 1)
}
</script>

<template>
  <div class="folio-line">
    <label class="flex items-center gap-1.5"
      >{{ title }}
      <input v-typed="page + 1" class="folio-number" aria-label="Go to page" inputmode="numeric" @change="jump" />
      <span>of {{ pages }}</span>
    </label>
    <span class="flex items-center gap-1">
      <button type="button" class="p-1" aria-label="Smaller" title="Smaller" @click="zoomBy(-1)">
        <ZoomOut :size="15" />
      </button>
      <span class="w-11 text-center tabular-nums">{{ Math.round(zoom * 100) }} %</span>
      <button type="button" class="p-1" aria-label="Larger" title="Larger" @click="zoomBy(1)">
        <ZoomIn :size="15" />
      </button>
    </span>
    <button type="button" @click="emit('fit')">Fit</button>
    <slot />
  </div>
</template>
