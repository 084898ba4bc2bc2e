<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'

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
    <span
      v-for="(pin, at) in props.pins ?? []"
      :key="at"
      class="pointer-events-none absolute -mt-[11px] -ml-[11px] flex size-[22px] items-center justify-center"
      :class="['rounded-full border-2 border-white text-[12px] text-white', pin.current ? 'bg-rubric' : 'bg-iris']"
      :style="{ left: `${pin.x * 100}%`, top: `${pin.y * 100}%` }"
      >{{ pin.title }}</span
    >
  </figure>
</template>
