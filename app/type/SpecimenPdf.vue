<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import type { CoveredScript } from '~~/core/font/measure/covered-scripts'
import { saveFile } from '../kit/save-file'
import { useType } from '../stores/type'

/** A specimen as PDF at true size, with a scale on every sheet. */
const props = defineProps<{
  faces: readonly FaceRecord[]
  equal?: 'size' | 'x-height'
  /** What text it shows and by whose letters sizes are made equal; else what the first face was measured on. */
  script?: CoveredScript
  /** What is set in the faces, in place of the words that the desk shows them with. */
  words?: string
}>()
const type = useType()
const making = ref(false)
const failure = ref('')
async function make(): Promise<void> {
  making.value = true
  failure.value = ''
  try {
    const response = await fetch('/api/specimen', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        faces: props.faces.map(face => face.hash),
        words: (props.words || type.shown).slice(0, 200),
        equal: props.equal ?? 'size',
        script: props.script ?? props.faces[0]?.measures.measuredOn ?? 'Latin',
      }),
    })
    if (!response.ok) throw new Error(((await response.json()) as { message?: string }).message)
    const name = props.faces.length === 1 ? props.faces[0]!.family : 'Faces'
    saveFile(await response.blob(), `${name} specimen.pdf`)
  } catch (error) {
    failure.value = (error instanceof Error && error.message) || 'The specimen could not be made.'
  }
  making.value = false
}
</script>

<template>
  <span
    ><button type="button" class="link" :disabled="making" @click="make">
      {{ making ? 'Setting the sheets …' : 'Specimen as PDF' }}</button
    ><span v-if="failure" role="alert" class="ml-2 text-rubric">{{ failure }}</span></span
  >
</template>
