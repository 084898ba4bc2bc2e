<script setup lang="ts">
import { roleTitle } from '~~/core/style/roles'
import { places } from '~~/core/census/criteria'
import { roles } from '~~/core/document/rules'
import { coveredScripts } from '~~/core/font/measure/covered-scripts'
import Choice from '../../kit/Choice.vue'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import type { OpenWish } from '../../stores/swap'

/** How far a wish goes, and what becomes of sizes and leading. */
const props = defineProps<{ wish: OpenWish }>()
const emit = defineEmits<{ change: [] }>()
const desk = useDesk()
const styles = useStyles()
const words = useWords()
const modes = [
  ['keep', 'as it is'],
  ['x-height', 'equal x-height'],
  ['cap-height', 'equal cap height'],
  ['width', 'equal width'],
  ['lines', 'so that the lines stay'],
] as const
const leadings = [
  ['as-is', 'as it is'],
  ['follow', 'follows the size'],
  ['stay', 'stays in points'],
] as const
const placeWords: Readonly<Record<string, string>> = {
  body: 'the body',
  frame: 'frames',
  table: 'tables',
  header: 'headers, footers, masters',
  note: 'notes',
  chart: 'charts',
  annotation: 'annotations',
}
const changed = () => emit('change')
onMounted(() => {
  if (styles.list.length === 0) void styles.refresh()
})
const paragraphStyles = computed(() => styles.list.filter(style => style.family === 'paragraph'))
const own = computed(() => props.wish)
</script>

<template>
  <div class="mt-2 border border-rule bg-sheet px-3 py-2 text-[13px] text-soft">
    <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
      <label
        >Size
        <Choice v-model="own.size" class="flex text-ink" @update:model-value="changed">
          <option v-for="[value, title] in modes" :key="value" :value="value">{{ title }}</option>
        </Choice></label
      >
      <template v-if="own.size !== 'keep'">
        <label
          >Rounded to
          <Choice v-model.number="own.step" class="flex text-ink" @update:model-value="changed">
            <option :value="0.1">0.1 pt</option>
            <option :value="0.25">0.25 pt</option>
            <option :value="0.5">0.5 pt</option>
            <option :value="1">1 pt</option>
          </Choice></label
        >
        <label
          >From, in percent
          <input
            v-model.number.lazy="own.least"
            type="number"
            min="25"
            max="100"
            class="field block w-[84px] text-ink"
            @change="changed"
        /></label>
        <label
          >To
          <input
            v-model.number.lazy="own.most"
            type="number"
            min="100"
            max="400"
            class="field block w-[84px] text-ink"
            @change="changed"
        /></label>
      </template>
      <label
        >Leading
        <Choice v-model="own.leading" class="flex text-ink" @update:model-value="changed">
          <option v-for="[value, title] in leadings" :key="value" :value="value">{{ title }}</option>
        </Choice></label
      >
    </div>
    <label class="mt-2 flex items-center gap-2 text-ink"
      ><input v-model="own.limited" type="checkbox" @change="changed" />Only some text: defaults, charts and
      declarations then stay as they are</label
    >
    <div v-if="own.limited" class="mt-1 flex flex-wrap items-end gap-x-3 gap-y-2">
      <label
        >Style
        <Choice v-model="own.limits.style" class="flex max-w-[150px] text-ink" @update:model-value="changed">
          <option value="">any</option>
          <option v-for="style in paragraphStyles" :key="style.name" :value="style.name">
            {{ style.displayName }}
          </option>
        </Choice></label
      >
      <label
        >Role
        <Choice v-model="own.limits.role" class="flex text-ink" @update:model-value="changed">
          <option value="">any</option>
          <option v-for="role in roles" :key="role" :value="role">{{ roleTitle(role) }}</option>
        </Choice></label
      >
      <label
        >Place
        <Choice v-model="own.limits.place" class="flex max-w-[130px] text-ink" @update:model-value="changed">
          <option value="">any</option>
          <option v-for="place in places.filter(each => each !== 'chart')" :key="place" :value="place">
            {{ placeWords[place] }}
          </option>
        </Choice></label
      >
      <label
        >Script
        <Choice v-model="own.limits.script" class="flex text-ink" @update:model-value="changed">
          <option value="">any</option>
          <option v-for="script in coveredScripts" :key="script" :value="script">{{ script }}</option>
        </Choice></label
      >
      <label
        >Language
        <input
          v-model.lazy="own.limits.language"
          class="field block w-[84px] text-ink"
          placeholder="any"
          @change="changed"
      /></label>
      <label
        >Pages from
        <input
          v-model.number.lazy="own.limits.from"
          type="number"
          min="1"
          :max="desk.sheets.length"
          class="field block w-[74px] text-ink"
          placeholder="first"
          @change="changed"
      /></label>
      <label
        >to
        <input
          v-model.number.lazy="own.limits.to"
          type="number"
          min="1"
          :max="desk.sheets.length"
          class="field block w-[74px] text-ink"
          placeholder="last"
          @change="changed"
      /></label>
      <label class="flex items-center gap-2 pb-1.5" :class="words.hasSelection ? 'text-ink' : ''"
        ><input
          v-model="own.limits.selection"
          type="checkbox"
          :disabled="!words.hasSelection && !own.limits.selection"
          @change="changed"
        />what is selected</label
      >
    </div>
  </div>
</template>
