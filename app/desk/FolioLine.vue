<script setup lang="ts">
import { faceName } from '~~/core/font/face'
import { useDesk } from '../stores/desk'
import PageFolio from './PageFolio.vue'
import PlaceWalk from './PlaceWalk.vue'

const emit = defineEmits<{ go: [page: number]; fit: []; swap: []; zoom: [factor: number] }>()
const desk = useDesk()
const face = computed(() => desk.census?.faces.find(each => each.key === desk.pointed?.face) ?? null)
const voice = computed(() => desk.census?.voices.find(each => each.key === desk.pointed?.voice) ?? null)
</script>

<template>
  <PageFolio
    :title="desk.view === 'pages' ? 'Page' : desk.view === 'notes' ? 'Notes' : 'Master'"
    :page="desk.page"
    :pages="desk.shown.length"
    :zoom="desk.zoom"
    @go="emit('go', $event)"
    @fit="emit('fit')"
    @zoom="emit('zoom', $event)"
  >
    <button type="button" :aria-pressed="desk.marks" title="Key M" @click="desk.marks = !desk.marks">
      {{ desk.marks ? 'Marks shown' : 'Marks hidden' }}
    </button>
    <PlaceWalk
      v-if="desk.occurrences.length > 0"
      :at="desk.at"
      :count="desk.occurrences.length"
      @walk="desk.walk($event)"
    />
    <span v-else-if="voice && face" class="flex min-w-0 items-center gap-3 text-ink" aria-live="polite">
      <span class="truncate">{{ faceName(voice.family, voice.style) }}, {{ voice.size }} pt</span>
      <button type="button" class="link" @click="emit('swap')">Swap this face</button>
    </span>
  </PageFolio>
</template>
