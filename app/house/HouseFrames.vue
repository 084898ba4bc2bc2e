<script setup lang="ts">
import type { HouseFrame } from '~~/core/house/house'
import type { Kept } from '~~/shared/kept'
import Choice from '../kit/Choice.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import Term from '../kit/Term.vue'
import { sentenceOf } from '../stores/desk'
import { useWays } from '../stores/ways'

/** Frames that a house keeps: the Pages stage offers them in its documents, before the desk's own. */
const props = defineProps<{ frames: readonly HouseFrame[] }>()
const emit = defineEmits<{ change: [frames: HouseFrame[]] }>()
const ways = useWays()
const kept = shallowRef<readonly Kept<'frame'>[]>([])
const chosen = ref('')
const message = ref('')
onMounted(async () => {
  try {
    kept.value = await $fetch<Kept<'frame'>[]>('/api/kept/frame')
  } catch (error) {
    message.value = sentenceOf(error)
  }
})
const offered = computed(() => kept.value.filter(each => !props.frames.some(frame => frame.name === each.name)))
function take(): void {
  const found = kept.value.find(each => each.id === chosen.value)
  if (found) emit('change', [...props.frames, { name: found.name, piece: found.data }])
  chosen.value = ''
}
const letGo = (frame: HouseFrame) =>
  emit(
    'change',
    props.frames.filter(each => each !== frame),
  )
</script>

<template>
  <section aria-label="Frames of the house">
    <p class="text-soft">
      <Term word="keptFrame">Kept frames</Term> that documents of this house are made with: boxes, notes, labels. Once a
      version with them is issued, <em>Pages</em> offers them in its documents; they travel with the house.
    </p>
    <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
    <table v-if="frames.length > 0" class="mt-2">
      <thead>
        <tr>
          <th scope="col">Frame</th>
          <th scope="col" class="number">Width</th>
          <th scope="col" class="number">Height</th>
          <th scope="col" class="pl-6">Styles</th>
          <th scope="col"><span class="sr-only">Take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in frames" :key="each.name">
          <td>{{ each.name }}</td>
          <td class="number">{{ ways.said(each.piece.width) }}</td>
          <td class="number">{{ ways.said(each.piece.height) }}</td>
          <td class="pl-6">{{ each.piece.styles.map(style => style.displayName).join(', ') || 'none by name' }}</td>
          <td>
            <button type="button" class="link" :aria-label="`Take away ${each.name}`" @click="letGo(each)">
              Take away
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="offered.length > 0" class="mt-3 flex items-end gap-2" @submit.prevent="take">
      <label class="text-[13px] text-soft"
        >From the desk’s kept frames<Choice v-model="chosen" class="mt-[2px] w-[240px] text-ink">
          <option value="">choose one</option>
          <option v-for="each in offered" :key="each.id" :value="each.id">{{ each.heading }}: {{ each.name }}</option>
        </Choice></label
      >
      <button type="submit" class="plain" :disabled="chosen === ''">Add it</button>
    </form>
    <p v-else-if="kept.length === 0" class="mt-3 text-soft">
      The desk keeps no frame yet. Open a document, choose a text frame on its sheets, and keep it in <em>Pages</em>.
    </p>
    <p v-else class="mt-3 text-soft">The house has all frames that the desk keeps.</p>
  </section>
</template>
