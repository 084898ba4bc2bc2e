<script setup lang="ts">
import { cleanUpTitles, type CleanUpKind, type Untidiness } from '~~/core/change/clean-up/clean-up'
import type { PlanRow } from '~~/core/change/plan'
import { useChange } from '../../change/use-change'
import { counted } from '../../desk/words'
import NoticeLine from '../../kit/NoticeLine.vue'
import PlanLeft from '../../kit/PlanLeft.vue'
import PlanRows from '../../kit/PlanRows.vue'
import Tick from '../../kit/Tick.vue'
import { useWords } from '../../stores/words'

/** Puts the words in order, after a look at every place. */
const change = useChange('clean-up')
const words = useWords()
const kinds = Object.keys(cleanUpTitles) as CleanUpKind[]
const wish = ref<Untidiness>({
  emptyParagraphs: true,
  doubleSpaces: true,
  edgeSpaces: true,
  tabIndents: false,
  straightQuotes: true,
})
const done = ref('')
const plan = computed(() => change.plan)
const countOf = (kind: CleanUpKind) => plan.value?.rows.filter(row => row.stage === kind).length ?? 0

async function look(): Promise<void> {
  done.value = ''
  change.leftOut = []
  await change.make([{ type: 'clean-up', ...wish.value }])
}

async function walk({ places: [place] }: PlanRow): Promise<void> {
  if (!place) return
  await words.selectRange(
    { part: place.part, node: place.node, offset: place.from ?? 0 },
    { part: place.part, node: place.node, offset: place.to ?? 0 },
  )
  await words.reveal()
}

async function apply(): Promise<void> {
  const places = plan.value?.places ?? 0
  if (!(await change.apply())) return
  words.clear()
  done.value = `${counted(places, 'place')} put in order. Undo takes all of them back.`
}
onBeforeUnmount(() => change.reset())
</script>

<template>
  <section class="mt-7" aria-labelledby="clean-up">
    <h2 id="clean-up">Put the words in order</h2>
    <div class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
      <label v-for="kind in kinds" :key="kind" class="flex items-center gap-2"
        ><Tick
          :checked="wish[kind]"
          @change="
            on => {
              wish[kind] = on
              change.reset()
            }
          "
        />{{ cleanUpTitles[kind]
        }}<span v-if="plan && wish[kind]" class="text-soft tabular-nums">{{ countOf(kind) }}</span></label
      >
    </div>
    <div class="mt-3 flex items-center gap-3">
      <button type="button" class="plain" :disabled="change.busy !== ''" @click="look">Look for them</button>
      <button
        v-if="plan && plan.rows.length > 0"
        type="button"
        class="act"
        :disabled="change.busy !== '' || plan.places === 0"
        @click="apply"
      >
        Put {{ counted(plan.places, 'place') }} in order
      </button>
      <button v-if="plan && plan.rows.length > 0" type="button" class="plain" @click="change.walking = true">
        Walk the pages
      </button>
      <span v-if="done" role="status">{{ done }}</span>
      <span v-else-if="plan && plan.rows.length === 0" class="text-soft" role="status"
        >Nothing of the kind is in this document.</span
      >
    </div>
    <NoticeLine v-if="change.message" kind="failed">{{ change.message }}</NoticeLine>
    <template v-if="plan">
      <PlanRows v-if="plan.rows.length > 0" :rows="plan.rows" walks @toggle="change.toggle($event)" @walk="walk" />
      <PlanLeft :plan="plan" />
    </template>
  </section>
</template>
