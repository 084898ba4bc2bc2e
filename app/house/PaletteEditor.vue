<script setup lang="ts">
import { colorDuties, type HouseColor } from '~~/core/house/house'
import { inkWords, readInk } from '~~/core/house/ink-words'
import { dutyTitles } from '~~/core/house/palette'
import Choice from '../kit/Choice.vue'

/** The colours of a palette, by what they do. What is in use stays until it is not. */
const props = defineProps<{
  palette: readonly HouseColor[]
  /** What goes by a colour: its words keep it from being dropped. */
  usedBy?: (id: string) => readonly string[]
  /** The colour that is looked at, where one is. */
  chosen?: string
}>()
const emit = defineEmits<{ change: [palette: HouseColor[]]; choose: [id: string] }>()
const users = (id: string) => props.usedBy?.(id) ?? []
function set(id: string, values: Partial<HouseColor>): void {
  emit(
    'change',
    props.palette.map(each => (each.id === id ? { ...each, ...values } : each)),
  )
}
function setColor(id: string, event: Event): void {
  const field = event.target as HTMLInputElement
  const color = field.value.trim().toLowerCase().replace(/^#?/, '#')
  if (/^#[0-9a-f]{6}$/.test(color)) set(id, { color })
  else field.value = props.palette.find(each => each.id === id)!.color
}
/** The colour whose ink was typed and is none. */
const noInk = ref('')
function setInk(id: string, event: Event): void {
  const ink = readInk((event.target as HTMLInputElement).value)
  noInk.value = ink === null ? id : ''
  if (ink === null) return
  emit(
    'change',
    props.palette.map(({ ink: _before, ...each }) =>
      each.id !== id ? (_before ? { ...each, ink: _before } : each) : ink ? { ...each, ink } : each,
    ),
  )
}
function add(): void {
  let number = props.palette.length + 1
  while (props.palette.some(each => each.id === `colour-${number}`)) number++
  emit('change', [
    ...props.palette,
    { id: `colour-${number}`, title: `Colour ${number}`, does: 'accent', color: '#1f6f6b' },
  ])
}
const drop = (id: string) =>
  emit(
    'change',
    props.palette.filter(each => each.id !== id),
  )
</script>

<template>
  <div>
    <ul class="border-t border-rule" aria-label="Colours of the palette">
      <li
        v-for="each in palette"
        :key="each.id"
        class="grid grid-cols-[24px_minmax(0,1fr)_92px_124px_auto] items-center gap-2 border-b border-rule py-1.5"
      >
        <button
          type="button"
          class="h-[22px] border"
          :class="chosen === each.id ? 'border-ink outline outline-2 outline-ink' : 'border-rule'"
          :style="{ background: each.color }"
          :aria-label="`Look at ${each.title}`"
          :aria-pressed="chosen === each.id"
          @click="emit('choose', each.id)"
        />
        <input
          v-typed="each.title"
          class="field min-w-0"
          maxlength="100"
          :aria-label="`Name of the colour ${each.title}`"
          @change="set(each.id, { title: ($event.target as HTMLInputElement).value.trim() || each.title })"
        />
        <input
          v-typed="each.color"
          class="field w-full"
          :aria-label="`Value of ${each.title}`"
          @change="setColor(each.id, $event)"
        />
        <Choice
          :model-value="each.does"
          :aria-label="`What ${each.title} does`"
          @update:model-value="set(each.id, { does: $event as HouseColor['does'] })"
        >
          <option v-for="duty in colorDuties" :key="duty" :value="duty">{{ dutyTitles[duty] }}</option>
        </Choice>
        <button
          type="button"
          class="link"
          :disabled="users(each.id).length > 0"
          :title="users(each.id).length > 0 ? `In use by ${users(each.id).join(', ')}` : undefined"
          :aria-label="`Drop ${each.title}`"
          @click="drop(each.id)"
        >
          Drop
        </button>
        <label class="col-span-4 col-start-2 flex items-center gap-2 text-soft"
          >Printed with
          <input
            v-typed="inkWords(each.ink)"
            class="field min-w-0 flex-1 text-ink"
            maxlength="100"
            placeholder="as it looks; or four shares of ink in percent, or a spot ink’s name"
            :aria-invalid="noInk === each.id"
            @change="setInk(each.id, $event)"
          />
        </label>
        <p v-if="noInk === each.id" role="alert" class="col-span-4 col-start-2 text-rubric">
          An ink is four shares from 0 to 100 (cyan, magenta, yellow, black) or a name. What was there is kept.
        </p>
      </li>
    </ul>
    <button type="button" class="link mt-2" @click="add">Add a colour</button>
  </div>
</template>
