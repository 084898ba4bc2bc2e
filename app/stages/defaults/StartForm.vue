<script setup lang="ts">
import type { StartSummary } from '~~/core/change/defaults/start-list'
import type { StartWish } from '~~/core/change/defaults/wishes'
import { plainNumber } from '~~/core/style/describe'
import { points } from '~~/core/document/lengths'
import { percent } from '~~/core/style/properties'
import { typedLength } from '~~/core/style/typed'
import { useType, type FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'

const props = defineProps<{ start: StartSummary; label?: string }>()
const emit = defineEmits<{ plan: [wish: StartWish] }>()
const choices = computed((): FamilyChoice[] => useType().choices)
const family = ref(props.start.family)
const size = ref(`${plainNumber(props.start.size)} pt`)
const leading = ref(
  props.start.leading === 'normal'
    ? ''
    : percent(props.start.leading) !== null
      ? props.start.leading.replace('%', ' %')
      : `${plainNumber(points(props.start.leading) ?? 0)} pt`,
)
const tracking = ref(points(props.start.tracking) === null ? '' : `${plainNumber(points(props.start.tracking)!)} pt`)
const color = ref(/^#[0-9a-f]{6}$/i.test(props.start.color) ? props.start.color : '#000000')
const hyphenate = ref(props.start.hyphenate)
const inset = ref(points(props.start.inset) === null ? '' : `${plainNumber(points(props.start.inset)!)} pt`)
const filled = ref(props.start.fill !== '')
const fill = ref(props.start.fill || '#ffffff')
const wrong = ref('')

/** Lengths without a unit are points. */
const read = (text: string): number | null => typedLength(text, 'pt')

function plan(): void {
  wrong.value = ''
  const text: Record<string, string> = {}
  const paragraph: Record<string, string> = {}
  const points = read(size.value)
  if (points === null || points <= 0) {
    wrong.value = `“${size.value}” is no size. Write for instance 10.5 pt.`
    return
  }
  text['fo:font-size'] = `${plainNumber(points)}pt`
  if (leading.value.trim() !== '') {
    const share = /%\s*$/.test(leading.value) ? Number.parseFloat(leading.value.replace(',', '.')) : null
    const length = share === null ? read(leading.value) : null
    if (share === null && length === null) {
      wrong.value = `“${leading.value}” is no leading. Write for instance 14 pt or 130 %.`
      return
    }
    paragraph['fo:line-height'] = share !== null ? `${plainNumber(share)}%` : `${plainNumber(length!)}pt`
  }
  if (tracking.value.trim() !== '') {
    const length = read(tracking.value)
    if (length === null) {
      wrong.value = `“${tracking.value}” is no tracking. Write for instance 0.2 pt.`
      return
    }
    text['fo:letter-spacing'] = length === 0 ? 'normal' : `${plainNumber(length)}pt`
  }
  if (color.value !== '#000000' || props.start.color !== '') text['fo:color'] = color.value
  if (hyphenate.value !== props.start.hyphenate) text['fo:hyphenate'] = String(hyphenate.value)
  const frame = props.start.kind === 'frame' && !props.start.live
  const room = frame && inset.value.trim() !== '' ? read(inset.value) : null
  emit('plan', {
    type: 'start',
    kind: props.start.kind,
    values: {
      ...(family.value !== '' && (family.value !== props.start.family || props.label !== undefined)
        ? { fonts: { western: { family: family.value } } }
        : {}),
      text,
      paragraph,
      ...(room !== null && room >= 0 ? { inset: room } : {}),
      ...(frame && (filled.value || props.start.fill !== '') ? { fill: filled.value ? fill.value : null } : {}),
    },
  })
}
</script>

<template>
  <form class="grid grid-cols-3 gap-3" @submit.prevent="plan">
    <FamilyPicker
      v-model="family"
      class="col-span-2"
      :choices="choices"
      label="Family"
      placeholder="Search the library"
    />
    <label class="text-[13px] text-soft">Size<input v-model="size" class="field mt-[2px] w-full text-ink" /></label>
    <label class="text-[13px] text-soft"
      >Leading<input v-model="leading" class="field mt-[2px] w-full text-ink" placeholder="of the face"
    /></label>
    <label class="text-[13px] text-soft"
      >Tracking<input v-model="tracking" class="field mt-[2px] w-full text-ink" placeholder="none"
    /></label>
    <label class="text-[13px] text-soft"
      >Colour<span class="mt-[2px] flex h-[30px] items-center gap-2"
        ><input v-model="color" type="color" class="h-[26px] w-[40px]" /><span class="text-ink">{{ color }}</span></span
      ></label
    >
    <label v-if="start.kind === 'frame' && !start.live" class="text-[13px] text-soft"
      >Inset<input v-model="inset" class="field mt-[2px] w-full text-ink" placeholder="none"
    /></label>
    <label v-if="start.kind === 'frame' && !start.live" class="flex items-end gap-2 pb-1 text-[13px]"
      ><input v-model="filled" type="checkbox" class="mb-1" /> filled
      <input v-model="fill" type="color" class="h-[26px] w-[40px]" :disabled="!filled" aria-label="Fill"
    /></label>
    <label class="flex items-end gap-2 pb-1.5"
      ><input v-model="hyphenate" type="checkbox" class="mb-0.5" /> hyphenated</label
    >
    <p v-if="wrong" role="alert" class="col-span-3 text-rubric">{{ wrong }}</p>
    <button type="submit" class="act justify-self-start">{{ label ?? 'Show the plan' }}</button>
  </form>
</template>
