<script setup lang="ts">
/** The way through places that are marked: which of how many is shown, from 0; -1 where none is yet. */
defineProps<{ at: number; count: number }>()
const emit = defineEmits<{ walk: [step: 1 | -1] }>()
</script>

<template>
  <span class="flex items-center gap-2 text-ink">
    <button type="button" class="link" @click="emit('walk', -1)">Previous</button>
    <span class="tabular-nums">Place {{ at < 0 ? '–' : at + 1 }} of {{ count }}</span>
    <button type="button" class="link" @click="emit('walk', 1)">Next</button>
  </span>
</template>
