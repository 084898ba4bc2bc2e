<script setup lang="ts">
/** What happened, in a sentence: something was done, or could not be. */
defineProps<{ kind: 'done' | 'failed' }>()
</script>

<template>
  <p
    :role="kind === 'done' ? 'status' : 'alert'"
    class="mt-2 border bg-sheet px-3 py-2"
    :class="kind === 'done' ? 'border-verdigris' : 'border-rubric text-rubric'"
  >
    <slot />
  </p>
</template>
