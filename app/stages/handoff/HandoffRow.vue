<script setup lang="ts">
import type { HandedNotes } from './use-handing'

/** One thing that a document can be handed on as: what it is, its choices, its buttons, and what came of it. */
defineProps<{ title: string; says: string; refused: string; made: HandedNotes | null }>()
</script>

<template>
  <section class="border-t border-rule py-3" :aria-label="title">
    <div class="flex flex-wrap items-start gap-x-4 gap-y-2">
      <div class="min-w-[220px] flex-1">
        <h3 class="font-semibold">{{ title }}</h3>
        <p class="text-soft">{{ says }}</p>
      </div>
      <div class="flex shrink-0 flex-wrap gap-2"><slot name="buttons" /></div>
    </div>
    <div v-if="$slots.default" class="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2"><slot /></div>
    <p v-if="refused" role="alert" class="mt-2 text-rubric">{{ refused }}</p>
    <div v-if="made" class="mt-2" aria-live="polite">
      <p>Saved: {{ made.said.join(', ') }}.</p>
      <ul v-if="made.left.length > 0" class="mt-1 text-soft">
        <li v-for="line in made.left" :key="line" class="break-words">{{ line }}</li>
      </ul>
    </div>
  </section>
</template>
