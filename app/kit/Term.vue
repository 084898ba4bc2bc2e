<script setup lang="ts">
import { useElementBounding, useEventListener } from '@vueuse/core'
import { glossary, type GlossaryWord } from './glossary'

/** A word of the desk's own where it first stands: its meaning comes under it on hover, focus and touch. */
defineProps<{ word: GlossaryWord }>()
const anchor = ref<HTMLElement | null>(null)
const open = ref(false)
const { left, top, bottom, update } = useElementBounding(anchor, { windowScroll: true, immediate: false })
const place = computed(() => ({
  left: `${Math.max(8, Math.min(left.value, window.innerWidth - 308))}px`,
  ...(bottom.value > window.innerHeight - 130
    ? { bottom: `${window.innerHeight - top.value + 4}px` }
    : { top: `${bottom.value + 4}px` }),
}))
function show(): void {
  update()
  open.value = true
}
useEventListener('keydown', event => {
  if (event.key === 'Escape') open.value = false
})
</script>

<template>
  <button
    ref="anchor"
    type="button"
    class="term"
    :aria-description="glossary[word].says"
    @mouseenter="show"
    @mouseleave="open = false"
    @focus="show"
    @blur="open = false"
    @click="show"
  >
    <slot /></button
  ><Teleport v-if="open" to="body"
    ><div aria-hidden="true" class="meaning" :style="place">
      {{ glossary[word].says }}
    </div></Teleport
  >
</template>
