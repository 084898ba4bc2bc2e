<script setup lang="ts">
import ColourPlane from '../colour/ColourPlane.vue'
import ColourSeen from '../colour/ColourSeen.vue'
import PaletteExchange from '../colour/PaletteExchange.vue'
import PaletteShelf from '../colour/PaletteShelf.vue'
import DeskFrame from '../desk/DeskFrame.vue'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import PaletteEditor from '../house/PaletteEditor.vue'
import Chips from '../kit/Chips.vue'
import Term from '../kit/Term.vue'
import { useColours, wantedRatios } from '../stores/colours'

const colours = useColours()
const view = ref<'palette' | 'shelf' | 'exchange'>('palette')
useHead({ title: 'Colours, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Colours" />
    <DeskFrame left-name="plane" right-name="palette">
      <template #left>
        <div class="min-h-0 flex-1 overflow-y-auto bg-desk px-6 pt-4 pb-8">
          <h1>Colours</h1>
          <p class="text-soft">
            Where a colour may lie so that it reaches a contrast on the ground of the
            <Term word="palette">palette</Term>. Diamonds stand in a harmony with the chosen colour; hatched places are
            less colourful on a screen.
          </p>
          <div class="mt-2 mb-2 flex flex-wrap items-center gap-3">
            <Chips
              label="Contrast that is wanted"
              :model-value="String(colours.wanted)"
              :options="wantedRatios.map(each => ({ id: String(each), title: `${each} : 1` }))"
              @update:model-value="colours.wanted = Number($event) as (typeof wantedRatios)[number]"
            />
            <span class="text-[13px] text-soft">{{
              colours.wanted === 3
                ? 'enough for text of 18 pt'
                : colours.wanted === 4.5
                  ? 'enough for all text'
                  : 'good for all text'
            }}</span>
          </div>
          <ColourPlane />
          <div class="mt-2 flex flex-wrap items-center gap-2">
            <span
              class="flex-1 border border-rule px-3 py-2 font-serif text-[17px]"
              :style="{ background: colours.ground, color: colours.reached?.color ?? 'transparent' }"
              >Two boats a day to every pier</span
            >
            <button
              type="button"
              class="act"
              :disabled="!colours.reached || !colours.chosen"
              @click="colours.give(colours.reached!.color)"
            >
              {{ colours.chosen ? `Give it to ${colours.chosen.title}` : 'Give it' }}
            </button>
            <button
              type="button"
              class="plain"
              :disabled="!colours.reached"
              @click="colours.add(colours.reached!.color)"
            >
              Add it
            </button>
          </div>
          <ColourSeen class="mt-4" />
        </div>
      </template>
      <template #between><ShelfIndex open="colours" /></template>
      <template #right>
        <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-8">
          <Chips
            v-model="view"
            class="mb-3"
            label="What is shown"
            :options="[
              { id: 'palette', title: 'This palette', count: colours.colors.length },
              { id: 'shelf', title: 'Palettes and colours in use' },
              { id: 'exchange', title: 'Exchange' },
            ]"
          />
          <PaletteEditor
            v-if="view === 'palette'"
            :palette="colours.colors"
            :chosen="colours.chosenId"
            @change="colours.set($event)"
            @choose="colours.choose($event)"
          />
          <PaletteShelf v-else-if="view === 'shelf'" />
          <PaletteExchange v-else />
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
