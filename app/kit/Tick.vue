<script setup lang="ts">
/** A box to tick, in the desk's look. Its label says what it is about; `said` where nothing stands beside it. */
defineProps<{ checked: boolean; said?: string; disabled?: boolean }>()
const emit = defineEmits<{ change: [checked: boolean] }>()
</script>

<template>
  <input
    type="checkbox"
    :checked="checked"
    :disabled="disabled"
    :aria-label="said"
    @change="emit('change', ($event.target as HTMLInputElement).checked)"
  />
</template>
