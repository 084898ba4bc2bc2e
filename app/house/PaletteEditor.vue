<script setup lang="ts">
import { colorDuties, type House, type HouseColor } from '~~/core/house/house'
import Choice from '../kit/Choice.vue'

/** The colours of a house, by what they do. */
const props = defineProps<{ house: House }>()
const emit = defineEmits<{ change: [palette: HouseColor[]] }>()
const duties: Readonly<Record<(typeof colorDuties)[number], string>> = {
  ground: 'ground',
  text: 'text',
  quiet: 'quiet text',
  accent: 'accent',
  warning: 'warning',
  series: 'chart series',
}
const inUse = (id: string) =>
  props.house.roles.filter(role => [role.text, role.deck, role.sheet, ...role.levels].some(each => each.color === id))
function set(id: string, values: Partial<HouseColor>): void {
  emit(
    'change',
    props.house.palette.map(each => (each.id === id ? { ...each, ...values } : each)),
  )
}
function setColor(id: string, event: Event): void {
  const field = event.target as HTMLInputElement
  const color = field.value.trim().toLowerCase().replace(/^#?/, '#')
  if (/^#[0-9a-f]{6}$/.test(color)) set(id, { color })
  else field.value = props.house.palette.find(each => each.id === id)!.color
}
function add(): void {
  let number = props.house.palette.length + 1
  while (props.house.palette.some(each => each.id === `colour-${number}`)) number++
  emit('change', [
    ...props.house.palette,
    { id: `colour-${number}`, title: `Colour ${number}`, does: 'accent', color: '#1f6f6b' },
  ])
}
const drop = (id: string) =>
  emit(
    'change',
    props.house.palette.filter(each => each.id !== id),
  )
</script>

<template>
  <div>
    <ul class="border-t border-rule" aria-label="Colours of the palette">
      <li
        v-for="each in house.palette"
        :key="each.id"
        class="grid grid-cols-[24px_minmax(0,1fr)_92px_124px_auto] items-center gap-2 border-b border-rule py-1.5"
      >
        <span class="h-[22px] border border-rule" :style="{ background: each.color }" aria-hidden="true" />
        <input
          class="field min-w-0"
          maxlength="100"
          :value="each.title"
          :aria-label="`Name of the colour ${each.title}`"
          @change="set(each.id, { title: ($event.target as HTMLInputElement).value.trim() || each.title })"
        />
        <input
          class="field w-full"
          :value="each.color"
          :aria-label="`Value of ${each.title}`"
          @change="setColor(each.id, $event)"
        />
        <Choice
          :model-value="each.does"
          :aria-label="`What ${each.title} does`"
          @update:model-value="set(each.id, { does: $event as HouseColor['does'] })"
        >
          <option v-for="duty in colorDuties" :key="duty" :value="duty">{{ duties[duty] }}</option>
        </Choice>
        <button
          type="button"
          class="link"
          :disabled="inUse(each.id).length > 0"
          :title="
            inUse(each.id).length > 0
              ? `In use by ${inUse(each.id)
                  .map(role => role.title)
                  .join(', ')}`
              : undefined
          "
          :aria-label="`Drop ${each.title}`"
          @click="drop(each.id)"
        >
          Drop
        </button>
      </li>
    </ul>
    <button type="button" class="link mt-2" @click="add">Add a colour</button>
  </div>
</template>
