<script setup lang="ts">
import { faceName } from '~~/core/font/face'
import { ZoomIn, ZoomOut } from '../kit/icons'
import { useDesk } from '../stores/desk'

const emit = defineEmits<{ go: [page: number]; fit: []; swap: []; zoom: [factor: number] }>()
const desk = useDesk()
const steps = [0.25, 0.35, 0.5, 0.6, 0.7, 0.86, 1, 1.25, 1.5, 2, 3, 4, 6, 8, 12, 16]

function zoomBy(direction: 1 | -1): void {
  const next =
    direction > 0 ? steps.find(step => step > desk.zoom + 0.001) : steps.findLast(step => step < desk.zoom - 0.001)
  if (next !== undefined) emit('zoom', next / desk.zoom)
}

function jump(event: Event): void {
  const number = Number.parseInt((event.target as HTMLInputElement).value, 10)
  if (number >= 1 && number <= desk.shown.length) emit('go', number - 1)
  else (event.target as HTMLInputElement).value = String(desk.page + 1)
}

const face = computed(() => desk.census?.faces.find(each => each.key === desk.pointed?.face) ?? null)
const voice = computed(() => desk.census?.voices.find(each => each.key === desk.pointed?.voice) ?? null)
</script>

<template>
  <div class="folio-line">
    <label class="flex items-center gap-1.5"
      >{{ desk.view === 'pages' ? 'Page' : desk.view === 'notes' ? 'Notes' : 'Master' }}
      <input class="folio-number" :value="desk.page + 1" aria-label="Go to page" inputmode="numeric" @change="jump" />
      <span>of {{ desk.shown.length }}</span>
    </label>
    <span class="flex items-center gap-1">
      <button type="button" class="p-1" aria-label="Smaller" title="Smaller" @click="zoomBy(-1)">
        <ZoomOut :size="15" />
      </button>
      <span class="w-11 text-center tabular-nums">{{ Math.round(desk.zoom * 100) }} %</span>
      <button type="button" class="p-1" aria-label="Larger" title="Larger" @click="zoomBy(1)">
        <ZoomIn :size="15" />
      </button>
    </span>
    <button type="button" @click="emit('fit')">Fit</button>
    <button type="button" :aria-pressed="desk.marks" title="Key M" @click="desk.marks = !desk.marks">
      {{ desk.marks ? 'Marks shown' : 'Marks hidden' }}
    </button>
    <span v-if="desk.occurrences.length > 0" class="flex items-center gap-2 text-ink">
      <button type="button" class="link" @click="desk.walk(-1)">Previous</button>
      <span class="tabular-nums">Place {{ desk.at < 0 ? '–' : desk.at + 1 }} of {{ desk.occurrences.length }}</span>
      <button type="button" class="link" @click="desk.walk(1)">Next</button>
    </span>
    <span v-else-if="voice && face" class="flex min-w-0 items-center gap-3 text-ink" aria-live="polite">
      <span class="truncate">{{ faceName(voice.family, voice.style) }}, {{ voice.size }} pt</span>
      <button type="button" class="link" @click="emit('swap')">Swap this face</button>
    </span>
  </div>
</template>
