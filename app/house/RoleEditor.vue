<script setup lang="ts">
import { nearest } from '~~/core/font/library'
import { settingFor, type House, type HouseRole, type Medium, type Room, type Setting } from '~~/core/house/house'
import { legibility, usualRoom } from '~~/core/house/legibility'
import Choice from '../kit/Choice.vue'
import FamilyPicker from '../type/FamilyPicker.vue'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'

/** How one role is set in a medium: what is empty is left open, or in decks and sheets is as in texts. */
const props = defineProps<{ house: House; role: HouseRole; medium: Medium }>()
const emit = defineEmits<{ change: [role: HouseRole]; room: [room: Room] }>()
const library = useLibrary()
/** How large it looks from where it is read. */
const seen = computed(() => {
  const { size, family, weight, italic } = now.value
  const faces = family === undefined ? [] : (library.library?.family(family) ?? [])
  if (size === undefined || faces.length === 0) return null
  const { measures } = nearest(faces, weight ?? 400, italic ?? false)
  return legibility(size, measures.xHeight, props.medium, props.house.room)
})
const room = computed(() => props.house.room ?? usualRoom)
function setRoom(values: Partial<Room>): void {
  emit('room', { ...room.value, ...values })
}
const type = useType()
const own = computed((): Setting => props.role[props.medium])
/** What holds where nothing is said here. */
const ground = computed((): Setting => (props.medium === 'text' ? {} : props.role.text))
const now = computed(() => settingFor(props.house, props.role.id, props.medium) ?? {})
const choices = computed(() => [
  { family: '', note: props.medium === 'text' ? 'left open' : 'as in texts', hash: null, absent: false },
  ...type.choices,
])

function set(values: Partial<Record<keyof Setting, unknown>>): void {
  const next = Object.fromEntries(
    Object.entries({ ...own.value, ...values }).filter(([, value]) => value !== undefined && value !== ''),
  ) as Setting
  emit('change', { ...props.role, [props.medium]: next })
}
const numberOf = (event: Event): number | undefined => {
  const { value } = event.target as HTMLInputElement
  const number = Number.parseFloat(value.replace(',', '.'))
  return Number.isFinite(number) ? number : undefined
}
const shown = (value: number | undefined) => (value === undefined ? '' : String(Math.round(value * 100) / 100))
const hint = (value: number | undefined) => (value === undefined ? 'open' : shown(value))
type LeadingUnit = NonNullable<Setting['leading']>['unit']
function setLeading(value: number | undefined, unit: LeadingUnit): void {
  set({ leading: value === undefined ? undefined : { value, unit } })
}
const leadingUnit = computed(() => own.value.leading?.unit ?? ground.value.leading?.unit ?? 'percent')
function setLevel(at: number, size: number | undefined): void {
  const levels = props.role.levels.map((level, index) => (index === at ? { ...level, size } : level))
  emit('change', { ...props.role, levels })
}
function addLevel(): void {
  const last = props.role.levels.at(-1)?.size ?? now.value.size ?? 20
  emit('change', { ...props.role, levels: [...props.role.levels, { size: Math.max(1, Math.round(last * 0.88)) }] })
}
function dropLevel(): void {
  emit('change', { ...props.role, levels: props.role.levels.slice(0, -1) })
}
</script>

<template>
  <div class="grid grid-cols-[84px_minmax(0,1fr)] items-center gap-x-3 gap-y-2">
    <label class="text-soft" for="role-title">Called</label>
    <input
      id="role-title"
      v-typed="role.title"
      class="field"
      maxlength="100"
      @change="emit('change', { ...role, title: ($event.target as HTMLInputElement).value.trim() || role.title })"
    />
    <span class="text-soft">Face</span>
    <div class="flex flex-wrap items-end gap-2">
      <FamilyPicker
        class="min-w-[170px] flex-1"
        label="Family"
        :placeholder="ground.family ?? 'left open'"
        :choices="choices"
        :model-value="own.family ?? ''"
        @update:model-value="set({ family: $event || undefined })"
      />
      <label class="text-[13px] text-soft"
        >Weight<br /><input
          v-typed="shown(own.weight)"
          class="field w-[64px] text-[14px] text-ink"
          inputmode="numeric"
          :placeholder="hint(ground.weight)"
          @change="set({ weight: numberOf($event) })"
      /></label>
      <label class="flex items-center gap-1.5 pb-1.5"
        ><input
          type="checkbox"
          :checked="now.italic ?? false"
          @change="set({ italic: ($event.target as HTMLInputElement).checked })"
        />
        italic</label
      >
    </div>
    <label class="text-soft" for="role-size">Size</label>
    <div class="flex flex-wrap items-center gap-2">
      <input
        id="role-size"
        v-typed="shown(own.size)"
        class="field w-[68px]"
        inputmode="decimal"
        :placeholder="hint(ground.size)"
        @change="set({ size: numberOf($event) })"
      />
      pt, leading
      <input
        v-typed="shown(own.leading?.value)"
        class="field w-[68px]"
        inputmode="decimal"
        aria-label="Leading"
        :placeholder="hint(ground.leading?.value)"
        @change="setLeading(numberOf($event), leadingUnit)"
      />
      <Choice
        :model-value="leadingUnit"
        aria-label="Unit of the leading"
        @update:model-value="setLeading(now.leading?.value ?? 130, $event as LeadingUnit)"
      >
        <option value="percent">% of the size</option>
        <option value="points">pt</option>
        <option value="own">% of the face’s own</option>
      </Choice>
    </div>
    <template v-if="seen">
      <span class="text-soft">Seen</span>
      <span :class="seen.enough ? '' : 'text-ochre'"
        >its x-height spans {{ seen.degrees.toFixed(2) }}° {{ seen.from
        }}{{ seen.enough ? '' : `; ${seen.would} pt would do` }}</span
      >
    </template>
    <template v-if="medium === 'deck'">
      <span class="text-soft">Room</span>
      <div class="flex flex-wrap items-center gap-2">
        a screen
        <input
          v-typed="shown(room.screenHeight)"
          class="field w-[58px]"
          inputmode="decimal"
          aria-label="Height of the screen, in metres"
          @change="setRoom({ screenHeight: numberOf($event) ?? room.screenHeight })"
        />
        m high, the last row
        <input
          v-typed="shown(room.lastRow)"
          class="field w-[58px]"
          inputmode="decimal"
          aria-label="Distance of the last row, in metres"
          @change="setRoom({ lastRow: numberOf($event) ?? room.lastRow })"
        />
        m away
      </div>
    </template>
    <label class="text-soft" for="role-tracking">Tracking</label>
    <div class="flex flex-wrap items-center gap-2">
      <input
        id="role-tracking"
        v-typed="shown(own.tracking)"
        class="field w-[68px]"
        inputmode="decimal"
        :placeholder="hint(ground.tracking)"
        @change="set({ tracking: numberOf($event) })"
      />
      thousandths
      <Choice
        :model-value="own.case ?? ''"
        aria-label="Case"
        @update:model-value="set({ case: ($event as string) || undefined })"
      >
        <option value="">case left open</option>
        <option value="none">as written</option>
        <option value="uppercase">capitals</option>
        <option value="small-caps">small capitals</option>
        <option value="lowercase">lower case</option>
      </Choice>
    </div>
    <span class="text-soft">Colour</span>
    <Choice
      :model-value="own.color ?? ''"
      aria-label="Colour"
      @update:model-value="set({ color: ($event as string) || undefined })"
    >
      <option value="">{{ medium === 'text' ? 'left open' : 'as in texts' }}</option>
      <option v-for="each in house.palette" :key="each.id" :value="each.id">{{ each.title }}, {{ each.color }}</option>
    </Choice>
    <label class="text-soft" for="role-before">Space</label>
    <div class="flex flex-wrap items-center gap-2">
      <input
        id="role-before"
        v-typed="shown(own.before)"
        class="field w-[68px]"
        inputmode="decimal"
        aria-label="Space before, in points"
        :placeholder="hint(ground.before)"
        @change="set({ before: numberOf($event) })"
      />
      pt before,
      <input
        v-typed="shown(own.after)"
        class="field w-[68px]"
        inputmode="decimal"
        aria-label="Space after, in points"
        :placeholder="hint(ground.after)"
        @change="set({ after: numberOf($event) })"
      />
      after
    </div>
    <span class="text-soft">Lines</span>
    <div class="flex flex-wrap items-center gap-3">
      <Choice
        :model-value="own.align ?? ''"
        aria-label="Alignment"
        @update:model-value="set({ align: ($event as string) || undefined })"
      >
        <option value="">alignment left open</option>
        <option value="start">set left</option>
        <option value="center">centred</option>
        <option value="end">set right</option>
        <option value="justify">justified</option>
      </Choice>
      <label class="flex items-center gap-1.5"
        ><input
          type="checkbox"
          :checked="now.hyphenate ?? false"
          @change="set({ hyphenate: ($event.target as HTMLInputElement).checked })"
        />
        hyphenated</label
      >
    </div>
    <template v-if="medium === 'deck' && role.id === 'body'">
      <span class="text-soft">Levels</span>
      <div class="flex flex-wrap items-center gap-2">
        <label v-for="(level, at) in role.levels" :key="at" class="flex items-center gap-1 text-[13px]"
          >{{ at + 2 }}
          <input
            v-typed="shown(level.size)"
            class="field w-[58px]"
            inputmode="decimal"
            :aria-label="`Size of level ${at + 2}`"
            placeholder="same"
            @change="setLevel(at, numberOf($event))"
        /></label>
        <button v-if="role.levels.length < 8" type="button" class="link" @click="addLevel">Add a level</button>
        <button v-if="role.levels.length > 0" type="button" class="link" @click="dropLevel">Drop the last</button>
      </div>
    </template>
  </div>
</template>
