<script setup lang="ts">
import { plainNumber } from '~~/core/style/describe'
import { points } from '~~/core/document/lengths'
import { leadingAs, leadingKind, leadingPoints, typedLeading, type LeadingKind } from '~~/core/style/typed'
import Choice from '../../../kit/Choice.vue'

/** The leading of a style, said in one of four ways. `size` in points. */
const props = defineProps<{
  own: string | null
  inherited: { readonly value: string; readonly from: string } | null
  size: number
}>()
const emit = defineEmits<{ set: [value: string | null] }>()
const leading = computed(() => props.own ?? props.inherited?.value ?? 'normal')
const kind = computed(() => leadingKind(leading.value))
function typed(event: Event): void {
  const value = typedLeading((event.target as HTMLInputElement).value, kind.value)
  if (value !== null) emit('set', value)
}
const gap = computed(() =>
  kind.value === 'face' ? '' : `${plainNumber(leadingPoints(leading.value, props.size) - props.size)} pt between lines`,
)
</script>

<template>
  <div class="grid min-h-[30px] grid-cols-[128px_170px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <label for="leading-kind">Leading</label>
    <span class="flex gap-1">
      <Choice
        id="leading-kind"
        class="!min-h-[26px] w-[92px] !py-0"
        :model-value="kind"
        @update:model-value="emit('set', leadingAs($event as LeadingKind, leading, size))"
      >
        <option value="face">of the face</option>
        <option value="solid">set solid</option>
        <option value="points">in points</option>
        <option value="percent">in percent</option>
      </Choice>
      <input
        v-if="kind === 'points' || kind === 'percent'"
        v-typed="kind === 'points' ? `${plainNumber(points(leading) ?? 0)} pt` : leading.replace('%', ' %')"
        class="field !min-h-[26px] w-[74px] !py-0 tabular-nums"
        aria-label="Leading, value"
        @change="typed"
      />
    </span>
    <span class="truncate text-[13px] text-soft"
      >{{ own !== null ? 'set here' : inherited ? `from ${inherited.from}` : '' }}
      <button v-if="own !== null" type="button" class="link" aria-label="Let go of Leading" @click="emit('set', null)">
        Let go
      </button>
      {{ gap }}</span
    >
  </div>
</template>
