<script setup lang="ts">
import { filler, fillerText } from '~~/core/format/filler'
import type { FaceRecord } from '~~/core/font/face'
import Chips from '../kit/Chips.vue'
import Choice from '../kit/Choice.vue'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'

/** The same words at steps of one value (size, leading or tracking), on any ground, in own words or a script's filler. */
const props = defineProps<{ face: FaceRecord }>()
const library = useLibrary()
const type = useType()
const of = ref<'size' | 'leading' | 'tracking'>('size')
const ground = ref('#ffffff')
const ink = ref('#1b2430')
const text = ref('')
/** Scripts that there is filler for, of those that the face has. */
const scripts = computed(() =>
  filler.filter(each => each.script === 'Japanese' || (props.face.coverage[each.script as never] ?? 0) > 20),
)
const words = computed(() => (text.value === '' ? type.shown : fillerText(text.value, 1)))
const steps = computed((): readonly { said: string; size: number; leading: number; tracking: number }[] => {
  const base = 16
  if (of.value === 'size')
    return [9, 11, 13, 16, 20, 26, 34].map(size => ({ said: `${size} pt`, size, leading: 1.3, tracking: 0 }))
  if (of.value === 'leading')
    return [1, 1.15, 1.3, 1.45, 1.6].map(leading => ({
      said: `${leading} of its size`,
      size: base,
      leading,
      tracking: 0,
    }))
  return [-30, -15, 0, 15, 30, 60, 120].map(tracking => ({
    said: tracking === 0 ? 'as drawn' : `${tracking > 0 ? '+' : '−'}${Math.abs(tracking)}`,
    size: base,
    leading: 1.3,
    tracking,
  }))
})
const rightToLeft = computed(() => text.value === 'Arabic' || text.value === 'Hebrew')
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <Chips
        v-model="of"
        label="Steps of"
        :options="[
          { id: 'size', title: 'Size' },
          { id: 'leading', title: 'Leading' },
          { id: 'tracking', title: 'Tracking' },
        ]"
      />
      <Choice v-model="text" aria-label="Text of the steps">
        <option value="">own words</option>
        <option v-for="each in scripts" :key="each.script" :value="each.script">filler, {{ each.script }}</option>
      </Choice>
      <label class="flex items-center gap-1.5 text-[13px] text-soft"
        >on <input v-model="ground" type="color" aria-label="Colour of the ground"
      /></label>
      <label class="flex items-center gap-1.5 text-[13px] text-soft"
        >in <input v-model="ink" type="color" aria-label="Colour of the text"
      /></label>
    </div>
    <div class="mt-2 border border-rule px-3 py-2" :style="{ background: ground, color: ink }">
      <div v-for="step in steps" :key="step.said" class="flex items-baseline gap-3 py-1">
        <span class="w-[88px] shrink-0 text-[12px]">{{ step.said }}</span>
        <span
          class="min-w-0 flex-1 overflow-hidden"
          :dir="rightToLeft ? 'rtl' : 'ltr'"
          :style="{
            fontFamily: library.cssFamily(face.hash),
            fontSize: `${(step.size * 4) / 3}px`,
            lineHeight: step.leading,
            letterSpacing: `${step.tracking / 1000}em`,
          }"
          >{{ words }}</span
        >
      </div>
    </div>
  </div>
</template>
