<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useRecast } from '../../stores/recast'
import { counted, grouped } from '../../desk/words'
import PlanLeft from '../../kit/PlanLeft.vue'
import PlanRows from '../../kit/PlanRows.vue'
import Tick from '../../kit/Tick.vue'
import { effectsWords } from '../../kit/plan-words'

/** What was found, place by place: walked, left out, and what the change does to the pages. */
const desk = useDesk()
const recast = useRecast()
const plan = computed(() => recast.plan!)
/** Matches in all, those that are not listed included. */
const matches = computed(
  () =>
    plan.value.rows.filter(row => row.stage === 'match').length +
    (plan.value.left.find(each => each.what.endsWith(' more places'))?.count ?? 0),
)
const heading = ref<HTMLElement | null>(null)
// What was looked for comes into sight when it is found.
// Only the tray scrolls: scrollIntoView would move the desk around it, too.
onMounted(() => {
  const tray = heading.value?.closest('.overflow-y-auto')
  if (tray && heading.value)
    tray.scrollTop += heading.value.getBoundingClientRect().top - tray.getBoundingClientRect().top - 16
})
</script>

<template>
  <section aria-label="What was found">
    <h2 ref="heading" class="mt-5">
      {{ matches > 0 ? counted(matches, 'match', 'matches') : plan.rows.length > 0 ? 'Colours' : 'Nothing found' }}
    </h2>
    <p class="text-soft">
      <template v-if="plan.places > 0"
        >{{ counted(plan.places, 'place') }} would change; {{ effectsWords(plan) }}.</template
      >
      <template v-else-if="matches === 0 && plan.rows.length === 0"
        >No text and no colour of this document answers to the wish.</template
      >
      <template v-else>Nothing is asked to change.</template>
    </p>
    <div v-if="plan.rows.length > 0" class="mt-1 flex flex-wrap items-center gap-3">
      <button type="button" class="plain" @click="desk.walk(-1)">Match before</button
      ><button type="button" class="plain" @click="desk.walk(1)">Next match</button>
      <span class="text-soft tabular-nums" role="status">{{
        desk.at < 0 ? '' : `${desk.at + 1} of ${grouped(desk.occurrences.length)}`
      }}</span>
      <label v-if="plan.places > 0" class="ml-auto flex items-center gap-1.5"
        ><Tick :checked="recast.showsAfter" @change="recast.showAfter($event)" />show the pages as they would be</label
      >
    </div>
    <PlanRows
      v-if="plan.rows.length > 0"
      :rows="plan.rows"
      :current="recast.current"
      walks
      @toggle="recast.toggle($event)"
      @walk="recast.goTo($event)"
    />
    <PlanLeft :plan="plan" />
  </section>
</template>
