<script setup lang="ts">
import type { BeyondLimit } from '~~/core/house/limits'
import { grouped } from '../../desk/words'
import { useDesk } from '../../stores/desk'

/** What goes beyond the limits of the house, by limit; each to walk through. */
const props = defineProps<{ beyond: readonly BeyondLimit[] }>()
const desk = useDesk()
const groups = computed(() => {
  const byTitle = new Map<string, BeyondLimit[]>()
  for (const each of props.beyond) byTitle.set(each.title, [...(byTitle.get(each.title) ?? []), each])
  return [...byTitle]
})
</script>

<template>
  <h2 class="mt-5">Beyond the limits of the house</h2>
  <p v-if="groups.length === 0" class="text-soft">Nothing goes beyond what the house sets limits to.</p>
  <table v-for="[title, entries] in groups" :key="title" class="mt-2">
    <caption class="text-left text-soft">
      {{
        title
      }}
    </caption>
    <tbody>
      <tr v-for="each in entries" :key="each.says">
        <td>
          <button type="button" class="link text-left" @click="desk.walkThrough(each.places)">{{ each.says }}</button>
        </td>
        <td class="number">{{ grouped(each.characters) }}</td>
      </tr>
    </tbody>
  </table>
</template>
