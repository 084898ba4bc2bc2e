<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'

/** A page as a picture that the desk drew: it comes when it is near, and stays. */
defineProps<{ source: string; number: number }>()
const root = ref<HTMLElement | null>(null)
const isNear = useElementVisibility(root, { rootMargin: '800px' })
const came = ref(false)
watch(isNear, near => (came.value ||= near), { immediate: true })
</script>

<template>
  <figure ref="root" class="mx-auto mb-4 min-h-[300px] bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]">
    <img v-if="came" :src="source" :alt="`Page ${number}`" class="block w-full" />
  </figure>
</template>
