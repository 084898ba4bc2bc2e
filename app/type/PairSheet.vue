<script setup lang="ts">
import { nearest } from '~~/core/font/library'
import type { PairStep } from '~~/core/pairing/kept-pair'
import { useLibrary } from '../stores/library'
import { usePairs } from '../stores/pairs'

/** A pair as real text: a page, slides of a deck, or a folded leaflet. Printed, it stands at true size. */
const props = defineProps<{ kind: 'page' | 'deck' | 'leaflet' }>()
const pairs = usePairs()
const library = useLibrary()
const pair = computed(() => pairs.pair!)
/** What is looked at from afar is set larger: a slide's body has about twice the size of a page's. */
const scale = computed(() => ({ page: 1, deck: 1.8, leaflet: 0.85 })[props.kind])
const size = (points: number) => `calc(${Math.round(points * scale.value * 100) / 100} * var(--pair-point))`
const face = (family: string, weight: number, italic: boolean) => {
  const faces = library.library?.family(family) ?? []
  return faces.length > 0 ? library.cssFamily(nearest(faces, weight, italic).hash) : undefined
}
type Step = Exclude<PairStep['role'], 'label'>
const head = (step: Step, weight: number) => ({
  fontFamily: face(pair.value.heading.family, weight, false),
  fontSize: size(pairs.headingSize(step)),
  lineHeight: 1.15,
})
const text = (step: Step, italic = false, weight = 400) => ({
  fontFamily: face(pair.value.body.family, weight, italic),
  fontSize: size(pairs.sizeOf(step)),
  lineHeight: 1.42,
})
const label = () => ({
  fontFamily: face(pairs.label ?? pair.value.body.family, 400, false),
  fontSize: size(pairs.sizeOf('caption')),
  lineHeight: 1.25,
})
const sailings = [
  ['Tern Holm', '7.30', '8.05'],
  ['Great Ossay', '7.30', '10.40'],
  ['The light', '13.15', '15.50'],
] as const
</script>

<template>
  <div class="pair-sheet border border-rule bg-sheet" role="img" :aria-label="`The pair as a ${kind} of text`">
    <div v-if="kind === 'page'" class="px-8 py-7">
      <p :style="head('display', 400)">Crossing to the outer islands</p>
      <p class="mt-3" :style="text('intro', true)">
        From the first thaw to the last lantern week, two boats leave Saltmere Quay each morning.
      </p>
      <p class="mt-4" :style="head('heading', 600)">Before you board</p>
      <p class="mt-1" :style="text('body')">
        Tickets are checked at the gangway. Please have the day card open at the right page, or the stub from the quay
        office; children under six need no ticket but do need a hand to hold. The
        <span :style="{ fontFamily: face(pair.body.family, 400, true) }">Grey Plover</span> calls at every pier, and
        takes <span :style="{ fontFamily: face(pair.body.family, 700, false) }">3 hours and 10 minutes</span> to Great
        Ossay if the tide is kind.
      </p>
      <p class="mt-3" :style="head('subheading', 600)">In winter service</p>
      <p class="mt-1" :style="text('body')">
        The afternoon boat turns at Tern Holm. Travellers for the light wait in the net loft, where there is a stove,
        tea, and a shelf of novels that nobody has ever finished.
      </p>
      <p class="mt-3 text-soft" :style="label()">Sailings 1 April to 31 October 2027, weather permitting.</p>
    </div>
    <div v-else-if="kind === 'deck'" class="divide-y divide-rule">
      <div class="flex aspect-video flex-col justify-end bg-verdigris px-8 py-7 text-white">
        <p :style="head('subheading', 600)">A season of two boats</p>
        <p class="mt-2" :style="label()">Saltmere Line, board meeting, November</p>
      </div>
      <div class="flex aspect-video flex-col px-8 py-6">
        <p :style="head('intro', 600)">More went, and they went earlier</p>
        <ul class="mt-3 list-disc pl-6" :style="text('caption')">
          <li>61,400 crossings, up by 2,500</li>
          <li>Half of all day cards sold before May</li>
          <li>The launch paid for itself by August</li>
        </ul>
        <p class="mt-auto text-soft" :style="{ ...label(), fontSize: size(pairs.sizeOf('caption') * 0.6) }">
          Counted at the gangway, 1 April to 31 October
        </p>
      </div>
    </div>
    <div v-else class="grid grid-cols-2 divide-x divide-rule">
      <div class="px-6 py-6">
        <p :style="head('display', 400)">Lantern week</p>
        <p class="mt-2" :style="text('intro', true)">Five evenings on the water, one light in every window.</p>
        <p class="mt-6" :style="head('subheading', 600)">How it goes</p>
        <p class="mt-1" :style="text('body')">
          Boats leave at dusk and turn when the last lantern on Tern Holm is lit. Bring a coat; bring two.
        </p>
      </div>
      <div class="px-6 py-6">
        <p :style="head('subheading', 600)">Boats that evening</p>
        <table class="mt-2 w-full" :style="label()">
          <tbody>
            <tr v-for="[pier, out, back] in sailings" :key="pier" class="border-b border-rule">
              <td class="py-1">{{ pier }}</td>
              <td class="number py-1">{{ out }}</td>
              <td class="number py-1">{{ back }}</td>
            </tr>
          </tbody>
        </table>
        <p class="mt-4" :style="text('body')">Children under six need no ticket but do need a hand to hold.</p>
        <p class="mt-3 text-soft" :style="label()">Quay office, open from seven.</p>
      </div>
    </div>
  </div>
</template>
