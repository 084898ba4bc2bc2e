<script setup lang="ts">
import Tick from '../../kit/Tick.vue'
import { useDesk } from '../../stores/desk'
import HandoffRow from './HandoffRow.vue'
import { useHanding } from './use-handing'

/** A PDF to be read: on a screen, or aloud. */
const desk = useDesk()
const notes = ref(false)
const leaveOut = ref(false)
const { making, refused, mayNotEmbed, made, hand } = useHanding()
const make = () =>
  hand(`/api/documents/${desk.info!.document.id}/handoff`, { as: 'pdf', notes: notes.value, leaveOut: leaveOut.value })
</script>

<template>
  <HandoffRow
    title="PDF for reading"
    says="Its pages at true size, tagged so that they can be read aloud, with bookmarks and links."
    :refused="refused"
    :made="made"
  >
    <template #buttons>
      <button type="button" class="plain" :disabled="making" @click="make">
        {{ making ? 'Setting the pages' : 'Make the PDF' }}
      </button>
    </template>
    <template v-if="desk.all.notes.length > 0 || mayNotEmbed" #default>
      <label v-if="desk.all.notes.length > 0" class="flex items-center gap-2"
        ><Tick :checked="notes" @change="notes = $event" /> The pages of speaker notes too</label
      >
      <label v-if="mayNotEmbed" class="flex items-center gap-2"
        ><Tick :checked="leaveOut" @change="leaveOut = $event" /> Leave out faces that may not be embedded</label
      >
    </template>
  </HandoffRow>
</template>
