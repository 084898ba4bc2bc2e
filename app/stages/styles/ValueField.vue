<script setup lang="ts">
import { points } from '~~/core/document/lengths'
import { percent } from '~~/core/style/properties'
import { plainNumber } from '~~/core/style/describe'
import Choice from '../../kit/Choice.vue'
import { typedLength } from '~~/core/style/typed'
import type { Field } from './fields'

/** One value of a style: what it is, whether it is set here or comes from a parent, and a way to let go of it. */
const props = defineProps<{
  field: Field
  own: string | null
  inherited: { readonly value: string; readonly from: string } | null
}>()
const emit = defineEmits<{ set: [value: string | null] }>()
const wrong = ref('')
const value = computed(() => props.own ?? props.inherited?.value ?? '')

function shown(text: string): string {
  if (props.field.kind === 'length') {
    const length = points(text)
    return length === null ? (text === 'normal' ? '0 pt' : text) : `${plainNumber(length)} pt`
  }
  if (props.field.kind === 'percent') {
    const share = percent(text)
    return share === null ? text : `${plainNumber(share * 100)} %`
  }
  return text
}
/** Lengths are taken in any unit, and as points without one: type is measured so. */
function read(text: string): string | null {
  const trimmed = text.trim()
  if (props.field.kind === 'length') {
    const length = typedLength(trimmed, 'pt')
    return length === null ? null : `${plainNumber(length)}pt`
  }
  if (props.field.kind === 'percent') {
    const number = Number.parseFloat(trimmed.replace(',', '.'))
    return number > 0 && number <= 600 ? `${plainNumber(number)}%` : null
  }
  if (props.field.kind === 'number') {
    const number = Number.parseInt(trimmed, 10)
    return number >= 0 && number <= 20 ? String(number) : null
  }
  return trimmed
}
function typed(event: Event): void {
  const { value: text } = event.target as HTMLInputElement
  if (text.trim() === '') {
    wrong.value = ''
    emit('set', null)
    return
  }
  const next = read(text)
  wrong.value =
    next === null
      ? `“${text}” is no ${props.field.kind === 'length' ? 'length: write for instance 12 pt, 4 mm or 0.2 in' : 'number that fits here'}`
      : ''
  if (next !== null) emit('set', next)
}
function step(by: 1 | -1): void {
  const now = props.field.kind === 'length' ? (points(value.value) ?? 0) : Number.parseFloat(value.value) || 0
  const next = now + by * (props.field.step ?? 1)
  emit(
    'set',
    props.field.kind === 'length'
      ? `${plainNumber(next)}pt`
      : props.field.kind === 'percent'
        ? `${plainNumber(next)}%`
        : plainNumber(Math.max(next, 0)),
  )
}
const known = computed(() => props.field.choices?.some(([each]) => each === value.value) ?? false)
</script>

<template>
  <div class="grid min-h-[30px] grid-cols-[128px_170px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <label :for="`field-${field.id}`" class="truncate">{{ field.title }}</label>
    <span class="flex items-center gap-1">
      <Choice
        v-if="field.kind === 'choice'"
        :id="`field-${field.id}`"
        class="!min-h-[26px] w-full !py-0"
        :class="{ 'text-soft': own === null }"
        :model-value="value"
        @update:model-value="emit('set', $event)"
      >
        <option v-if="!known" :value="value">{{ value === '' ? 'not said' : value }}</option>
        <option v-for="[each, title] in field.choices" :key="each" :value="each">{{ title }}</option>
      </Choice>
      <template v-else-if="field.kind === 'color'">
        <input
          :id="`field-${field.id}`"
          type="color"
          class="h-[24px] w-[34px]"
          :value="/^#[0-9a-f]{6}$/i.test(value) ? value : '#ffffff'"
          @input="emit('set', ($event.target as HTMLInputElement).value)"
        />
        <input
          v-typed="value"
          class="field !min-h-[26px] w-[104px] !py-0"
          :class="{ 'text-soft': own === null }"
          :aria-label="`${field.title}, as a value`"
          placeholder="not said"
          @change="
            emit(
              'set',
              /^#[0-9a-f]{6}$/i.test(($event.target as HTMLInputElement).value) ||
                ($event.target as HTMLInputElement).value === 'transparent'
                ? ($event.target as HTMLInputElement).value
                : null,
            )
          "
        />
      </template>
      <template v-else>
        <input
          :id="`field-${field.id}`"
          v-typed="shown(value)"
          class="field !min-h-[26px] w-[104px] !py-0 tabular-nums"
          :class="{ 'text-soft': own === null }"
          placeholder="not said"
          @change="typed"
          @keydown.up.prevent="step(1)"
          @keydown.down.prevent="step(-1)"
        />
        <button type="button" class="plain !px-2 !py-0" :aria-label="`${field.title}: less`" @click="step(-1)">−</button
        ><button type="button" class="plain !px-2 !py-0" :aria-label="`${field.title}: more`" @click="step(1)">
          +
        </button>
      </template>
    </span>
    <span class="truncate text-[13px]">
      <span v-if="wrong" class="text-rubric" role="alert">{{ wrong }}</span>
      <template v-else-if="own !== null"
        >set here
        <button type="button" class="link" :aria-label="`Let go of ${field.title}`" @click="emit('set', null)">
          Let go</button
        ><span v-if="inherited" class="text-soft">, else {{ shown(inherited.value) }}</span></template
      >
      <span v-else-if="inherited" class="text-soft">from {{ inherited.from }}</span>
      <slot />
    </span>
  </div>
</template>
