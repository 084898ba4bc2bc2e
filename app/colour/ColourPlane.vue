<script setup lang="ts">
import { harmonies } from '~~/core/colour/harmony'
import { mostChroma } from '~~/core/colour/reach'
import { useColours } from '../stores/colours'

/**
 * Where a colour may lie: hue from left to right, chroma upwards, each place as light or dark as the contrast wants it.
 * Pointing chooses a place, arrow keys walk; what no screen shows is hatched.
 */
const colours = useColours()
const holder = ref<HTMLElement | null>(null)
let dragging = false
function pointAt(event: PointerEvent): void {
  const box = holder.value!.getBoundingClientRect()
  const hue = ((event.clientX - box.left) / box.width) * 360
  colours.point(Math.max(0, Math.min(359.9, hue)), (1 - (event.clientY - box.top) / box.height) * mostChroma)
}
function grab(event: PointerEvent): void {
  dragging = true
  holder.value!.setPointerCapture(event.pointerId)
  pointAt(event)
}
function move(event: PointerEvent): void {
  if (dragging) pointAt(event)
}
function key(event: KeyboardEvent): void {
  const { hue, chroma } = colours.at
  const far = event.shiftKey ? 5 : 1
  const to: Readonly<Record<string, () => void>> = {
    ArrowLeft: () => colours.point(hue - 2 * far, chroma),
    ArrowRight: () => colours.point(hue + 2 * far, chroma),
    ArrowUp: () => colours.point(hue, chroma + 0.005 * far),
    ArrowDown: () => colours.point(hue, chroma - 0.005 * far),
  }
  const act = to[event.key]
  if (!act) return
  event.preventDefault()
  act()
}
const words = computed(() => {
  const { reached, at } = colours
  const place = `hue ${Math.round(at.hue)}°, chroma ${at.chroma.toFixed(3)}`
  return reached === null
    ? `${place}: nothing there reaches the contrast`
    : `${place}: ${reached.color}, ${reached.ratio.toFixed(1)} to 1${reached.inGamut ? '' : ', less colourful on a screen'}`
})
const titles = Object.fromEntries(harmonies.map(each => [each.id, each.title]))
const left = (hue: number) => `${(hue / 360) * 100}%`
const top = (chroma: number) => `${(1 - Math.min(chroma, mostChroma) / mostChroma) * 100}%`
</script>

<template>
  <div>
    <div
      ref="holder"
      class="relative h-[220px] w-full touch-none overflow-hidden border border-ink outline-offset-2"
      role="slider"
      tabindex="0"
      aria-label="Where a colour may lie, by hue and chroma; arrow keys walk"
      aria-orientation="horizontal"
      :aria-valuemin="0"
      :aria-valuemax="360"
      :aria-valuenow="Math.round(colours.at.hue)"
      :aria-valuetext="words"
      @pointerdown="grab"
      @pointermove="move"
      @pointerup="dragging = false"
      @keydown="key"
    >
      <div
        v-for="(row, at) in colours.plane"
        :key="at"
        class="flex"
        :style="{ height: `${100 / colours.plane.length}%` }"
        aria-hidden="true"
      >
        <span
          v-for="place in row"
          :key="place.hue"
          class="flex-1"
          :class="{ hatched: place.reached && !place.reached.inGamut }"
          :style="{ backgroundColor: place.reached?.color ?? 'transparent' }"
        />
      </div>
      <span
        v-for="(mark, at) in colours.marks"
        :key="at"
        class="mark pointer-events-none absolute size-[12px] rotate-45 border-2 border-white outline outline-1 outline-ink"
        :style="{ left: left(mark.hue), top: top(mark.chroma), background: mark.color }"
        :title="titles[mark.harmony]"
        aria-hidden="true"
      />
      <span
        class="mark pointer-events-none absolute size-[18px] rounded-full border-2 border-white outline outline-2 outline-ink"
        :style="{
          left: left(colours.at.hue),
          top: top(colours.at.chroma),
          background: colours.reached?.color ?? 'transparent',
        }"
        aria-hidden="true"
      />
    </div>
    <p class="mt-2 text-[13px] text-soft" role="status">{{ words }}</p>
  </div>
</template>

<style scoped>
.mark {
  translate: -50% -50%;
}
.hatched {
  background-image: repeating-linear-gradient(135deg, transparent 0 4px, rgb(255 255 255 / 45%) 4px 5px);
}
</style>
