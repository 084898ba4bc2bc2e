<script setup lang="ts">
import { contrast, contrastWords } from '~~/core/colour/contrast'
import { tintsAndShades } from '~~/core/colour/harmony'
import { confusedBy, seenWith, visions } from '~~/core/colour/vision'
import { useColours } from '../stores/colours'

/** The chosen colour: its contrast on the ground by size, how others see it, its tints and shades. */
const colours = useColours()
const color = computed(() => colours.chosen?.color ?? '#000000')
const ratio = computed(() => contrast(color.value, colours.ground))
const confused = computed(() => {
  const titles = new Map(colours.colors.map(each => [each.color, each.title]))
  const shown = colours.colors.filter(each => each.does !== 'ground').map(each => each.color)
  return visions.flatMap(vision =>
    confusedBy(shown, vision.id).map(
      ([one, other]) => `${titles.get(one)} and ${titles.get(other)} look alike ${vision.title}`,
    ),
  )
})
</script>

<template>
  <section v-if="colours.chosen" aria-label="The chosen colour">
    <h2>{{ colours.chosen.title }}, {{ color }}</h2>
    <p v-if="colours.chosen.does !== 'ground'">
      On the ground: {{ contrastWords(ratio, 10, false).words }} at 10 pt;
      {{ contrastWords(ratio, 18, false).words }} at 18 pt.
    </p>
    <div class="mt-2 flex flex-wrap gap-3">
      <figure v-for="vision in visions" :key="vision.id" class="text-[12px] text-soft">
        <span class="flex border border-rule"
          ><span
            v-for="each in colours.colors"
            :key="each.id"
            class="h-[26px] w-[18px]"
            :style="{ background: seenWith(each.color, vision.id) }"
            aria-hidden="true"
        /></span>
        <figcaption>{{ vision.title }}</figcaption>
      </figure>
    </div>
    <ul v-if="confused.length > 0" class="mt-1 text-[13px] text-ochre">
      <li v-for="each in confused.slice(0, 8)" :key="each">{{ each }}</li>
    </ul>
    <h3 class="mt-3 font-medium">Tints and shades</h3>
    <div class="mt-1 flex">
      <button
        v-for="each in tintsAndShades(color)"
        :key="each"
        type="button"
        class="h-[30px] flex-1"
        :style="{ background: each }"
        :aria-label="`Take ${each} into the palette`"
        :title="`${each}, ${contrast(each, colours.ground).toFixed(1)} : 1`"
        @click="colours.add(each)"
      />
    </div>
  </section>
</template>
