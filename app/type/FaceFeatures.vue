<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import { shownFeatures } from '~~/core/font/features'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'

/** Each feature of a face, off and on, in words that show it. */
const props = defineProps<{ face: FaceRecord }>()
const library = useLibrary()
const type = useType()
const rows = computed(() => shownFeatures(props.face.features))
const set = (tag: string, on: boolean) => ({
  fontFamily: library.cssFamily(props.face.hash),
  fontFeatureSettings: `"${tag}" ${on ? 1 : 0}`,
})
</script>

<template>
  <table v-if="rows.length > 0" class="mt-1">
    <thead>
      <tr>
        <th scope="col">Feature</th>
        <th scope="col">Off</th>
        <th scope="col">On</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="each in rows" :key="each.tag">
        <td class="w-[150px] text-[13px]">
          {{ each.title }}<br /><span class="text-soft">{{ each.tag }}{{ each.usual ? ', usually on' : '' }}</span>
        </td>
        <td class="text-[19px]" :style="set(each.tag, false)">{{ each.words || type.shown.slice(0, 24) }}</td>
        <td class="text-[19px]" :style="set(each.tag, true)">{{ each.words || type.shown.slice(0, 24) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-else class="text-soft">It has none that could be switched.</p>
</template>
