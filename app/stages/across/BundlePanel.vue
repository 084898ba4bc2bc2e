<script setup lang="ts">
import { useAcross } from '../../stores/across'
import { counted } from '../../desk/words'
import { useHanding } from '../handoff/use-handing'

/** The ticked documents with what they need elsewhere, in one zip. */
const across = useAcross()
const { making, refused, made, hand } = useHanding()
/** As many documents go into one bundle. */
const most = 50
const tooMany = computed(() => across.selected.length > most)
const make = () => hand('/api/bundle', { documents: across.selected })
</script>

<template>
  <section aria-label="Bundle">
    <h2 class="mt-6">Hand them on</h2>
    <p class="text-soft">
      In one zip with the fonts that may be passed on, their proofs, records and PDFs; another desk opens it complete.
    </p>
    <p class="mt-2">
      <button type="button" class="plain" :disabled="making || tooMany || across.selected.length === 0" @click="make">
        {{ making ? 'Putting it together' : `Bundle ${counted(across.selected.length, 'document')}` }}
      </button>
    </p>
    <p v-if="tooMany" class="mt-1 text-soft">A bundle takes {{ most }} documents.</p>
    <p v-if="refused" role="alert" class="mt-2 text-rubric">{{ refused }}</p>
    <div v-if="made" class="mt-2" aria-live="polite">
      <p>Saved: {{ made.said.join(', ') }}.</p>
      <ul class="mt-1 text-soft">
        <li v-for="line in made.left" :key="line" class="break-words">{{ line }}</li>
      </ul>
    </div>
  </section>
</template>
