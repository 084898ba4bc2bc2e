<script setup lang="ts">
import { useFinished } from '../../stores/finished'
import SignOff from '../../kit/SignOff.vue'
import HandoffRow from '../../stages/handoff/HandoffRow.vue'
import { useHanding } from '../../stages/handoff/use-handing'

/** What can be taken away of a finished PDF: itself, what is in it, a bundle. */
const finished = useFinished()
const { making, refused, made, hand } = useHanding()
const id = computed(() => finished.info!.document.id)
const bundle = () => hand('/api/bundle', { documents: [id.value] })
</script>

<template>
  <h1>Handoff</h1>
  <p class="text-soft">
    Every change stands behind the bytes that were there, so that the file as it came can still be taken out of it.
  </p>
  <SignOff v-if="finished.info" class="mt-3" :info="finished.info" />
  <div class="mt-3">
    <HandoffRow title="The PDF" says="As it is now, with all that was added and put right." refused="" :made="null">
      <template #buttons><a class="act" :href="`/api/documents/${id}/file?download`">Save the PDF</a></template>
    </HandoffRow>
    <HandoffRow
      title="Its fonts"
      says="A line a font: how much it sets, at which sizes, where."
      refused=""
      :made="null"
    >
      <template #buttons><a class="plain" :href="`/api/documents/${id}/census?format=csv`">Save as CSV</a></template>
    </HandoffRow>
    <HandoffRow
      title="Bundle"
      says="The PDF with a list of fonts that it does not hold itself."
      :refused="refused"
      :made="made"
    >
      <template #buttons>
        <button type="button" class="plain" :disabled="making" @click="bundle">
          {{ making ? 'Putting it together' : 'Make the bundle' }}
        </button>
      </template>
    </HandoffRow>
  </div>
</template>
