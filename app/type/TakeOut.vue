<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import { counted } from '../desk/words'
import { useAddedFaces } from '../stores/added-faces'

/** Takes added faces of a family away, after saying which documents name it. */
const props = defineProps<{ family: string; faces: readonly FaceRecord[] }>()
const added = useAddedFaces()
const own = computed(() => props.faces.filter(face => face.source === 'added'))
/** Documents that name the family; null until that is asked. */
const naming = ref<number | null>(null)
async function ask(): Promise<void> {
  naming.value = await added.naming(props.family).catch(() => 0)
}
watch(
  () => props.family,
  () => {
    naming.value = null
  },
)
</script>

<template>
  <p v-if="own.length > 0" class="mt-2">
    <button v-if="naming === null" type="button" class="link" @click="ask">
      Take {{ counted(own.length, 'added face') }} out of the library
    </button>
    <span v-else class="flex flex-wrap items-center gap-3"
      ><span class="text-soft">{{
        naming === 0
          ? 'No document on the shelf names it.'
          : `${counted(naming, 'document names', 'documents name')} it: it would be absent there. The files stay as they are.`
      }}</span
      ><button type="button" class="text-rubric" @click="added.takeOut(faces)">Take it out</button
      ><button type="button" class="link" @click="naming = null">Keep it</button></span
    >
  </p>
</template>
