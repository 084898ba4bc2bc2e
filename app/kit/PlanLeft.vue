<script setup lang="ts">
import type { RecordedPlan } from '~~/shared/api'
import { grouped } from '../desk/words'

/** What stays as it is, with the reason; what is dropped since it would go stale; and what the figures leave aside. */
defineProps<{ plan: RecordedPlan }>()
</script>

<template>
  <section v-if="plan.missingGlyphs.length > 0" class="mt-4">
    <h2>Missing signs</h2>
    <p class="text-soft">The new face lacks these; readers will take them from other fonts.</p>
    <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
      <span v-for="glyph in plan.missingGlyphs.slice(0, 60)" :key="`${glyph.codePoint}${glyph.face}`"
        ><span class="text-[17px]">{{ glyph.character }}</span>
        <span class="text-[12px] text-soft"
          >U+{{ glyph.codePoint.toString(16).toUpperCase().padStart(4, '0') }}, {{ glyph.count }}×</span
        ></span
      >
    </p>
  </section>
  <section v-if="plan.left.length > 0" class="mt-4">
    <h2>Stays as it is</h2>
    <ul>
      <li v-for="left in plan.left" :key="left.what + left.reason" class="border-b border-rule py-1">
        <strong class="font-medium">{{ left.what }}</strong><span v-if="left.count > 1" class="text-soft">
          ({{ grouped(left.count) }})</span
        >:
        <span class="text-ochre">{{ left.reason }}</span>
      </li>
    </ul>
  </section>
  <p v-if="plan.stale.length > 0" class="mt-3 text-[13px] text-soft">
    Dropped because it would no longer show the document, and drawn anew by the next program that saves:
    {{ plan.stale.join(', ') }}.
  </p>
  <p v-if="plan.effects && plan.effects.unlaid.length > 0" class="mt-2 text-[13px] text-soft">
    Figures about pages leave aside:
    {{ plan.effects.unlaid.map(each => `${each.feature}, ${each.count}`).join('; ') }}.
  </p>
</template>
