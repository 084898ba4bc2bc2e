<script setup lang="ts">
import {
  Combobox,
  ComboboxButton,
  ComboboxInput,
  ComboboxLabel,
  ComboboxOption,
  ComboboxOptions,
} from '@headlessui/vue'
import { nearest } from '~~/core/font/library'
import { ChevronDown } from '../../kit/icons'
import { useLibrary } from '../../stores/library'

export interface FamilyChoice {
  readonly family: string
  readonly note: string
  readonly hash: string | null
  readonly absent: boolean
}

const props = defineProps<{
  modelValue: string
  choices: readonly FamilyChoice[]
  label: string
  placeholder: string
}>()
/** `active` is the family under the pointer or the arrow keys while the list is open; '' when it closes. */
const emit = defineEmits<{ 'update:modelValue': [family: string]; active: [family: string] }>()
const store = useLibrary()
const query = ref('')
const found = computed(() =>
  props.choices.filter(choice => choice.family.toLowerCase().includes(query.value.trim().toLowerCase())),
)

function pick(family: unknown): void {
  query.value = ''
  emit('update:modelValue', String(family ?? ''))
}

let last = ''
/** Told while the list is drawn: the option that is pointed at. */
function point(family: unknown, open: boolean): string {
  const next = open && family ? String(family) : ''
  if (next !== last) {
    last = next
    void nextTick(() => emit('active', next))
  }
  return ''
}

/** The face a family's name is drawn in. */
function drawnIn(choice: FamilyChoice): string | undefined {
  if (choice.absent) return undefined
  const faces = store.library?.family(choice.family) ?? []
  const hash = choice.hash ?? (faces.length > 0 ? nearest(faces, 400, false).hash : null)
  return hash ? store.cssFamily(hash) : undefined
}
</script>

<template>
  <Combobox
    v-slot="{ activeOption, open }"
    :model-value="modelValue"
    as="div"
    class="relative min-w-0 flex-1"
    @update:model-value="pick"
  >
    <span class="hidden">{{ point(activeOption, open) }}</span>
    <ComboboxLabel class="block text-[13px] text-soft">{{ label }}</ComboboxLabel>
    <div class="relative mt-0.5">
      <ComboboxInput
        class="field w-full pr-8"
        :display-value="(value: unknown) => String(value ?? '')"
        :placeholder="placeholder"
        autocomplete="off"
        @change="query = $event.target.value"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <ComboboxButton class="absolute inset-y-0 right-0 px-2" :aria-label="`${label}: show all`"
        ><ChevronDown :size="16" aria-hidden="true"
      /></ComboboxButton>
    </div>
    <ComboboxOptions
      class="absolute z-30 mt-px max-h-[340px] w-full min-w-[270px] overflow-auto border border-ink bg-sheet py-1"
    >
      <li v-if="found.length === 0" class="px-3 py-1 text-soft">No family of that name</li>
      <ComboboxOption
        v-for="choice in found"
        :key="choice.family"
        v-slot="{ active, selected }"
        :value="choice.family"
        as="template"
      >
        <li
          class="flex min-h-[30px] cursor-pointer items-baseline justify-between gap-3 px-3 py-[3px]"
          :class="{ 'bg-wash': active, 'font-semibold': selected }"
        >
          <span
            class="truncate text-[17px] leading-6"
            :class="{ 'text-iris': choice.absent }"
            :style="{ fontFamily: drawnIn(choice) }"
            ><span v-if="choice.absent" aria-hidden="true">◇ </span>{{ choice.family }}</span
          >
          <span class="shrink-0 text-[12px] text-soft">{{ choice.note }}</span>
        </li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
