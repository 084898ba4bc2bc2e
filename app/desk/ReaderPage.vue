<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import RemarkPin from '../remarks/RemarkPin.vue'

/** A page as a picture that the desk drew: it comes when it is near, and stays. What is pointed at on it is told. */
const props = defineProps<{
  source: string
  number: number
  /** Places on it, as shares of its width and height, each with what it is called. */
  pins?: readonly { readonly x: number; readonly y: number; readonly title: string; readonly current: boolean }[]
}>()
const emit = defineEmits<{ point: [place: { readonly x: number; readonly y: number }] }>()
const root = ref<HTMLElement | null>(null)
const isNear = useElementVisibility(root, { rootMargin: '800px' })
const came = ref(false)
watch(isNear, near => (came.value ||= near), { immediate: true })
const within = (value: number) => Math.max(0, Math.min(1, value))
function point(event: MouseEvent): void {
  const { left, top, width, height } = root.value!.getBoundingClientRect()
  emit('point', { x: within((event.clientX - left) / width), y: within((event.clientY - top) / height) })
}
</script>

<template>
  <!-- Keys say the page beside it: whoever cannot point says something of the page as a whole. -->
  <figure
    ref="root"
    class="relative mx-auto mb-4 min-h-[300px] bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]"
    @click="point"
  >
    <img v-if="came" :src="source" :alt="`Page ${number}`" class="block w-full" />
    <RemarkPin v-for="(pin, at) in props.pins ?? []" :key="at" class="pointer-events-none" v-bind="pin" />
  </figure>
</template>
