<script setup lang="ts">
import { nearest } from '~~/core/font/library'
import { useLibrary } from '../stores/library'
import { usePairs } from '../stores/pairs'

/** A pair as real text: a page with title, intro, two headings, body with emphasis, a caption. */
const pairs = usePairs()
const library = useLibrary()
const pair = computed(() => pairs.pair!)
/** Pixels to a point, so that the sheet is read at a size that screens need. */
const zoom = 1.5
const px = (points: number) => `${Math.round(points * zoom * 10) / 10}px`
const face = (family: string, weight: number, italic: boolean) => {
  const faces = library.library?.family(family) ?? []
  return faces.length > 0 ? library.cssFamily(nearest(faces, weight, italic).hash) : undefined
}
const head = (step: Parameters<typeof pairs.headingSize>[0], weight: number) => ({
  fontFamily: face(pair.value.heading.family, weight, false),
  fontSize: px(pairs.headingSize(step)),
  lineHeight: 1.15,
})
const text = (step: Parameters<typeof pairs.sizeOf>[0], italic = false, weight = 400) => ({
  fontFamily: face(pair.value.body.family, weight, italic),
  fontSize: px(pairs.sizeOf(step)),
  lineHeight: 1.42,
})
</script>

<template>
  <div class="border border-rule bg-sheet px-8 py-7" aria-label="The pair as a page of text" role="img">
    <p :style="head('display', 400)">Crossing to the outer islands</p>
    <p class="mt-3" :style="text('intro', true)">
      From the first thaw to the last lantern week, two boats leave Saltmere Quay each morning.
    </p>
    <p class="mt-4" :style="head('heading', 600)">Before you board</p>
    <p class="mt-1" :style="text('body')">
      Tickets are checked at the gangway. Please have the day card open at the right page, or the stub from the quay
      office; children under six need no ticket but do need a hand to hold. The
      <span :style="{ fontFamily: face(pair.body.family, 400, true) }">Grey Plover</span> calls at every pier, and takes
      <span :style="{ fontFamily: face(pair.body.family, 700, false) }">3 hours and 10 minutes</span> to Great Ossay if
      the tide is kind.
    </p>
    <p class="mt-3" :style="head('subheading', 600)">In winter service</p>
    <p class="mt-1" :style="text('body')">
      The afternoon boat turns at Tern Holm. Travellers for the light wait in the net loft, where there is a stove, tea,
      and a shelf of novels that nobody has ever finished.
    </p>
    <p class="mt-3 text-soft" :style="text('caption')">Sailings 1 April to 31 October 2027, weather permitting.</p>
  </div>
</template>
