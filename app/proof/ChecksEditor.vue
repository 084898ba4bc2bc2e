<script setup lang="ts">
import { checkGroups, type CheckDescription } from '~~/core/proof/check'
import { severities, type Severity } from '~~/core/house/checks'
import type { ListedChecks } from '~~/core/house/checks'
import { plainNumber } from '~~/core/style/describe'
import Choice from '../kit/Choice.vue'
import Tick from '../kit/Tick.vue'

/** Which checks run, how much each matters, and by which limits. */
const props = defineProps<{ checks: readonly CheckDescription[]; list: ListedChecks }>()
const emit = defineEmits<{ change: [list: ListedChecks] }>()
const titles = { faces: 'Faces', consistency: 'Consistency', words: 'Words', setting: 'Setting', reading: 'Reading' }

const own = (id: string) => props.list[id] ?? { runs: true, limits: {} }
function set(id: string, change: Partial<ListedChecks[string]>): void {
  emit('change', { ...props.list, [id]: { ...own(id), ...change } })
}
function setLimit(id: string, name: string, text: string): void {
  const value = Number.parseFloat(text.replace(',', '.'))
  const { [name]: _, ...others } = own(id).limits
  set(id, { limits: Number.isNaN(value) ? others : { ...others, [name]: value } })
}
</script>

<template>
  <div>
    <section v-for="group in checkGroups" :key="group" :aria-label="titles[group]">
      <h2 class="mt-4">{{ titles[group] }}</h2>
      <div v-for="each in checks.filter(one => one.group === group)" :key="each.id" class="border-b border-rule py-1.5">
        <div class="flex items-baseline gap-2">
          <label class="flex min-w-0 flex-1 items-baseline gap-2"
            ><Tick :checked="own(each.id).runs" @change="set(each.id, { runs: $event })" />{{ each.title }}</label
          >
          <Choice
            class="!min-h-[26px] !py-0"
            :aria-label="`${each.title}: how much it matters`"
            :model-value="own(each.id).severity ?? each.severity"
            @update:model-value="set(each.id, { severity: $event as Severity })"
          >
            <option v-for="level in severities" :key="level" :value="level">{{ level }}</option>
          </Choice>
        </div>
        <p class="ml-6 text-[13px] text-soft">{{ each.looksFor }}</p>
        <div v-if="each.limits && own(each.id).runs" class="ml-6 flex flex-wrap gap-x-4 gap-y-1 text-[13px] text-soft">
          <label v-for="(limit, name) in each.limits" :key="name" class="flex items-center gap-1.5"
            >{{ limit.title
            }}<input
              v-typed="plainNumber(own(each.id).limits[name] ?? limit.usual)"
              class="field !min-h-[26px] w-[68px] !py-0 text-ink tabular-nums"
              inputmode="decimal"
              @change="setLimit(each.id, String(name), ($event.target as HTMLInputElement).value)"
          /></label>
        </div>
      </div>
    </section>
  </div>
</template>
