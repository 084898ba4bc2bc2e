<script setup lang="ts" generic="Value extends string | object | null">
import { Combobox, ComboboxButton, ComboboxInput, ComboboxLabel, ComboboxOptions } from '@headlessui/vue'
import { ChevronDown } from './icons'

/**
 * A field in which something of many is looked for by its words and chosen from a list: what is found stands in the
 * slot. `state` is drawn with the list and knows what is pointed at.
 */
defineProps<{
  label: string
  placeholder: string
  /** What the button says that shows all there is. */
  all: string
  words: (value: Value) => string
  by?: string
  /** Emptying the field chooses nothing. */
  nullable?: boolean
}>()
const model = defineModel<Value>({ required: true })
const query = defineModel<string>('query', { required: true })
defineSlots<{ default(): unknown; state?(of: { active: unknown; open: boolean }): unknown }>()
</script>

<template>
  <Combobox
    v-slot="{ activeOption, open }"
    v-model="model"
    as="div"
    class="relative min-w-0"
    :by="by"
    :nullable="nullable"
  >
    <slot name="state" :active="activeOption" :open="open" />
    <ComboboxLabel class="block text-[13px] text-soft">{{ label }}</ComboboxLabel>
    <div class="relative mt-0.5">
      <ComboboxInput
        class="field w-full pr-8"
        :display-value="value => words(value as Value)"
        :placeholder="placeholder"
        autocomplete="off"
        @change="query = $event.target.value"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <ComboboxButton class="absolute inset-y-0 right-0 px-2" :aria-label="`${label}: ${all}`"
        ><ChevronDown :size="16" aria-hidden="true"
      /></ComboboxButton>
    </div>
    <ComboboxOptions
      class="absolute z-30 mt-px max-h-[340px] w-full min-w-[270px] overflow-auto border border-ink bg-sheet py-1 text-ink"
    >
      <slot />
    </ComboboxOptions>
  </Combobox>
</template>
