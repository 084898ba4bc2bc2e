<script setup lang="ts">
import { ComboboxOption } from '@headlessui/vue'
import { nearest } from '~~/core/font/library'
import PickField from '../kit/PickField.vue'
import { useLibrary } from '../stores/library'
import { useType, type FamilyChoice } from '../stores/type'

const props = defineProps<{
  modelValue: string
  choices: readonly FamilyChoice[]
  label: string
  placeholder: string
}>()
/** `active` is the family under the pointer or the arrow keys while the list is open; '' when it closes. */
const emit = defineEmits<{ 'update:modelValue': [family: string]; active: [family: string] }>()
const store = useLibrary()
const type = useType()
const query = ref('')
/** By name first; then by look, as the library is searched: “condensed slab”, “old-style figures”. */
const found = computed(() => {
  const asked = query.value.trim().toLowerCase()
  const named = props.choices.filter(choice => choice.family.toLowerCase().includes(asked))
  if (asked.length < 3) return named
  const looks = type.byLook(asked)
  return [...named, ...props.choices.filter(choice => looks.has(choice.family) && !named.includes(choice))]
})
onMounted(() => void type.load().catch(() => null))

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
  <PickField
    v-model:query="query"
    class="flex-1"
    :model-value="modelValue"
    :label="label"
    :placeholder="placeholder"
    all="show all"
    :words="family => family"
    @update:model-value="pick"
  >
    <template #state="{ active, open }"
      ><span class="hidden">{{ point(active, open) }}</span></template
    >
    <li v-if="found.length === 0" class="px-3 py-1 text-soft">No family of that name or look</li>
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
  </PickField>
</template>
