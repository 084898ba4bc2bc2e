<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import { axisName, calledAt, usualPlace, type AxisPlace } from '~~/core/font/axes'
import { plainNumber } from '~~/core/style/describe'
import NoticeLine from '../kit/NoticeLine.vue'
import { sentenceOf } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'

/** The axes of a variable file: a place on them is looked at, and becomes a face of its own. */
const props = defineProps<{ face: FaceRecord }>()
const library = useLibrary()
const type = useType()
const place = ref<AxisPlace>(usualPlace(props.face.axes))
const suggested = computed(() => calledAt(props.face, place.value))
const family = ref<string | null>(null)
const style = ref<string | null>(null)
const busy = ref(false)
const done = ref('')
const failure = ref('')
watch(
  () => props.face.hash,
  () => {
    place.value = usualPlace(props.face.axes)
    family.value = style.value = null
  },
)
const variation = computed(() =>
  Object.entries(place.value)
    .map(([tag, value]) => `'${tag}' ${value}`)
    .join(', '),
)
/** Steps of an axis: whole ones, finer where it is short. */
const stepOf = ({ least, most }: FaceRecord['axes'][number]) => (most - least > 20 ? 1 : 0.01)
function move(tag: string, text: string): void {
  const axis = props.face.axes.find(each => each.tag === tag)!
  const value = Number(text.replace(',', '.'))
  if (text.trim() === '' || Number.isNaN(value)) return
  place.value = { ...place.value, [tag]: Math.min(axis.most, Math.max(axis.least, value)) }
}
async function make(): Promise<void> {
  busy.value = true
  done.value = failure.value = ''
  try {
    const made = await $fetch<FaceRecord>(`/api/faces/${props.face.hash}/instance`, {
      method: 'POST',
      body: {
        family: family.value?.trim() || suggested.value.family,
        style: style.value?.trim() || suggested.value.style,
        place: place.value,
      },
    })
    done.value = `${made.family} ${made.style} is in the library.`
    await library.reload()
  } catch (error) {
    failure.value = sentenceOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section aria-label="Places on its axes">
    <h2 class="mt-5">Places on its axes</h2>
    <p class="text-soft">
      This family came as a variable file. Any place on its axes becomes a face of its own, which text can be set in.
    </p>
    <p
      class="mt-2 truncate border-b border-rule pb-2 text-[30px] leading-10"
      :style="{ fontFamily: library.cssFamily(face.hash), fontVariationSettings: variation, fontOpticalSizing: 'none' }"
      data-place
    >
      {{ type.shown }}
    </p>
    <div v-for="axis in face.axes" :key="axis.tag" class="mt-1.5 grid grid-cols-[110px_1fr_84px] items-center gap-3">
      <span>{{ axisName(axis) }}</span>
      <input
        type="range"
        class="w-full accent-verdigris"
        :aria-label="axisName(axis)"
        :min="axis.least"
        :max="axis.most"
        :step="stepOf(axis)"
        :value="place[axis.tag]"
        @input="move(axis.tag, ($event.target as HTMLInputElement).value)"
      />
      <input
        v-typed="plainNumber(place[axis.tag] ?? axis.usual)"
        class="field !min-h-[26px] w-full !py-0 tabular-nums"
        inputmode="decimal"
        :aria-label="`${axisName(axis)}, value`"
        @change="move(axis.tag, ($event.target as HTMLInputElement).value)"
      />
    </div>
    <div class="mt-3 flex flex-wrap items-end gap-3">
      <label class="text-[13px] text-soft"
        >Family<input
          class="field mt-[2px] block w-[200px] text-[14px] text-ink"
          maxlength="80"
          :value="family ?? suggested.family"
          @input="family = ($event.target as HTMLInputElement).value"
      /></label>
      <label class="text-[13px] text-soft"
        >Style<input
          class="field mt-[2px] block w-[150px] text-[14px] text-ink"
          maxlength="80"
          :value="style ?? suggested.style"
          @input="style = ($event.target as HTMLInputElement).value"
      /></label>
      <button type="button" class="plain" :disabled="busy" @click="make">Make a face of it</button>
    </div>
    <NoticeLine v-if="done" kind="done" class="mt-2">{{ done }}</NoticeLine>
    <NoticeLine v-if="failure" kind="failed" class="mt-2">{{ failure }}</NoticeLine>
  </section>
</template>
