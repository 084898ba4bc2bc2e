<script setup lang="ts">
import type { DocumentInfo } from '~~/shared/api'
import { Redo2, Undo2 } from '../kit/icons'

/** Undo and redo, each with what it would undo or do again. */
defineProps<{
  history: DocumentInfo['history']
  /** Something was done that is not stored yet: it can be undone, too. */
  unsaved?: boolean
}>()
const emit = defineEmits<{ step: [direction: 'undo' | 'redo'] }>()
</script>

<template>
  <button
    type="button"
    class="plain flex max-w-[260px] items-center gap-1.5 !py-[3px]"
    :disabled="!history.undo && !unsaved"
    :title="history.undo ? `Undo: ${history.undo.title}` : 'Nothing to undo'"
    @click="emit('step', 'undo')"
  >
    <Undo2 :size="15" class="shrink-0" aria-hidden="true" /><span class="truncate">{{
      history.undo ? `Undo: ${history.undo.title}` : 'Nothing to undo'
    }}</span>
  </button>
  <button
    v-if="history.redo"
    type="button"
    class="plain flex max-w-[200px] items-center gap-1.5 !py-[3px]"
    :title="`Redo: ${history.redo.title}`"
    @click="emit('step', 'redo')"
  >
    <Redo2 :size="15" class="shrink-0" aria-hidden="true" /><span class="truncate">Redo: {{ history.redo.title }}</span>
  </button>
</template>
