<script setup lang="ts">
import { nearest } from '~~/core/font/library'
import { colorOf, settingFor, type House, type Medium, type Setting } from '~~/core/house/house'
import { legibility } from '~~/core/house/legibility'
import { sampleFor } from '~~/core/house/samples'
import { limitWords, sizeWords } from '~~/core/house/setting-words'
import { contrast } from '~~/core/colour/contrast'
import { useLibrary } from '../stores/library'

/** A house as a sheet: every role drawn in itself, the palette, and the limits. */
const props = defineProps<{ house: House; medium: Medium }>()
const role = defineModel<string>('role', { required: true })
/** A role was pointed at, though it is looked at already. */
const emit = defineEmits<{ choose: [] }>()
function choose(id: string): void {
  role.value = id
  emit('choose')
}
const library = useLibrary()
onMounted(() => void library.load().catch(() => null))

interface Line {
  readonly id: string
  readonly role: string
  readonly title: string
  readonly setting: Setting
  readonly sample: string
}
const lines = computed((): Line[] =>
  props.house.roles.flatMap(each => {
    const levels = props.medium === 'deck' && each.id === 'body' ? Math.max(1, each.levels.length + 1) : 1
    return Array.from({ length: levels }, (_, at): Line => ({
      id: `${each.id} ${at + 1}`,
      role: each.id,
      title: levels > 1 ? `${each.title}, level ${at + 1}` : each.title,
      setting: settingFor(props.house, each.id, props.medium, at + 1)!,
      sample: sampleFor(each),
    }))
  }),
)
const ground = computed(() => props.house.palette.find(each => each.does === 'ground')?.color ?? '#ffffff')
/** Slides are drawn at half their size: they are read from afar. */
const scale = computed(() => (props.medium === 'deck' ? 0.72 : 1.45))

function drawn({ setting }: Line) {
  const faces = setting.family === undefined ? [] : (library.library?.family(setting.family) ?? [])
  const face = faces.length > 0 ? nearest(faces, setting.weight ?? 400, setting.italic ?? false) : null
  const size = setting.size ?? 11
  return {
    fontFamily: face ? library.cssFamily(face.hash) : undefined,
    fontSize: `${Math.min(size * scale.value, 46)}px`,
    lineHeight: 1.25,
    color: colorOf(props.house, setting.color) ?? undefined,
    letterSpacing: setting.tracking ? `${setting.tracking / 1000}em` : undefined,
    textTransform: setting.case === 'uppercase' || setting.case === 'lowercase' ? setting.case : undefined,
    fontVariant: setting.case === 'small-caps' ? 'small-caps' : undefined,
  }
}
const isAbsent = ({ setting }: Line) =>
  setting.family !== undefined && library.library !== null && library.library.family(setting.family).length === 0
/** Roles that are too small to be read fluently from where they are read. */
const tooSmall = computed(() =>
  lines.value.flatMap(line => {
    const { size, family, weight, italic } = line.setting
    const faces = family === undefined ? [] : (library.library?.family(family) ?? [])
    if (size === undefined || faces.length === 0) return []
    const { measures } = nearest(faces, weight ?? 400, italic ?? false)
    const seen = legibility(size, measures.xHeight, props.medium, props.house.room)
    return seen.enough
      ? []
      : [
          `${line.title} at ${size} pt: its x-height is ${seen.degrees.toFixed(2)}° ${seen.from}; ${seen.would} pt would do`,
        ]
  }),
)
const limits = computed(() => limitWords(props.house.limits, props.medium))
</script>

<template>
  <div class="border border-rule px-7 py-6 shadow-sheet" :style="{ background: ground }">
    <p class="flex justify-between border-b border-rule pb-3 text-[13px] text-soft">
      <span>{{ house.name }}</span><span>{{ { text: 'texts', deck: 'decks', sheet: 'sheets' }[medium] }}</span>
    </p>
    <ul aria-label="Roles of this house">
      <li v-for="line in lines" :key="line.id" class="border-b border-rule">
        <button
          type="button"
          class="grid w-full grid-cols-[104px_minmax(0,1fr)_78px] items-baseline gap-3 py-2 text-left"
          :class="{ 'bg-wash': role === line.role }"
          :aria-pressed="role === line.role"
          :aria-label="`${line.title}: ${line.setting.family ?? 'face left open'}, ${sizeWords(line.setting) || 'size left open'}`"
          @click="choose(line.role)"
        >
          <span class="pl-1.5 text-[13px] text-soft">{{ line.title }}</span>
          <span class="truncate" :class="{ 'text-iris': isAbsent(line) }" :style="drawn(line)">{{ line.sample }}</span>
          <span class="pr-1.5 text-right text-[12px] text-soft">{{ sizeWords(line.setting) || 'open' }}</span>
        </button>
      </li>
    </ul>
    <ul v-if="house.palette.length > 0" class="mt-4 flex flex-wrap gap-3" aria-label="Palette">
      <li v-for="each in house.palette" :key="each.id" class="w-[88px] text-[12px]">
        <span class="block h-[34px] border border-rule" :style="{ background: each.color }" />
        <span class="mt-1 block truncate" :title="each.title">{{ each.title }}</span>
        <span class="block text-soft">{{ each.color }}</span>
        <span v-if="each.does !== 'ground'" class="block text-soft"
          >{{ contrast(each.color, ground).toFixed(1) }} : 1</span
        >
      </li>
    </ul>
    <p v-if="limits.length > 0" class="mt-3 text-[13px] text-soft">{{ limits.join(' · ') }}</p>
    <ul v-if="tooSmall.length > 0" class="mt-2 text-[13px] text-ochre" aria-label="Too small to be read with ease">
      <li v-for="each in tooSmall" :key="each">{{ each }}</li>
    </ul>
  </div>
</template>
