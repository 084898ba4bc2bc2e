<script setup lang="ts">
/** A disc where somebody pointed on a page; `x` and `y` are shares of its width and height. */
defineProps<{ x: number; y: number; title: string; current?: boolean }>()
</script>

<template>
  <span
    class="absolute -mt-[11px] -ml-[11px] flex size-[22px] items-center justify-center"
    :class="['rounded-full border-2 border-white text-[12px] text-white', current ? 'bg-rubric' : 'bg-iris']"
    :style="{ left: `${x * 100}%`, top: `${y * 100}%` }"
    >{{ title }}</span
  >
</template>
