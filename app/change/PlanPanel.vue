<script setup lang="ts">
import type { RowKey } from '~~/core/change/plan'
import { counted } from '../desk/words'
import NoticeLine from '../kit/NoticeLine.vue'
import PlanLeft from '../kit/PlanLeft.vue'
import PlanRows from '../kit/PlanRows.vue'
import { amountWords, effectsWords } from '../kit/plan-words'
import { useChange, type ChangeId } from './use-change'
import Term from '../kit/Term.vue'

/** A plan of any kind, looked at before it is carried out: rows are left out, pages walked, and then it is done or left. */
const props = defineProps<{ id: ChangeId }>()
const change = useChange(props.id)
const emit = defineEmits<{ apply: []; leave: []; toggle: [key: RowKey] }>()
const plan = computed(() => change.plan!)
const button = ref<HTMLButtonElement | null>(null)
onMounted(() => button.value?.focus())
</script>

<template>
  <div>
    <h1>{{ plan.title }}</h1>
    <p class="text-soft">
      {{ amountWords(plan) }} would change; {{ effectsWords(plan) }}. The sheets show it as it would be.
    </p>
    <NoticeLine v-if="change.message" kind="failed">{{ change.message }}</NoticeLine>
    <div class="mt-3 flex flex-wrap gap-2">
      <button
        ref="button"
        type="button"
        class="act"
        :disabled="change.busy !== '' || plan.places === 0"
        @click="emit('apply')"
      >
        {{
          change.busy === 'applying'
            ? 'Working …'
            : change.busy === 'planning'
              ? 'Planning …'
              : `Carry it out in ${counted(plan.places, 'place')}`
        }}
      </button>
      <button type="button" class="plain" @click="emit('leave')">Leave it</button>
      <button v-if="plan.effects" type="button" class="plain" @click="change.walking = true">Walk the pages</button>
    </div>
    <h2 class="mt-5">Places</h2>
    <p class="text-soft">Rows that are not ticked are <Term word="leaveOut">left out</Term>.</p>
    <PlanRows :rows="plan.rows" @toggle="emit('toggle', $event)" />
    <PlanLeft :plan="plan" />
  </div>
</template>
