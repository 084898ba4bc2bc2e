<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import HandoffRow from './HandoffRow.vue'
import { useHanding } from './use-handing'

/** The document with what it needs at another desk. */
const desk = useDesk()
const { making, refused, made, hand } = useHanding()
const make = () => hand('/api/bundle', { documents: [desk.info!.document.id] })
</script>

<template>
  <HandoffRow
    title="Bundle"
    says="The document with the fonts that may be passed on, its proof, records, PDF and house; another desk opens it complete."
    :refused="refused"
    :made="made"
  >
    <template #buttons>
      <button type="button" class="plain" :disabled="making" @click="make">
        {{ making ? 'Putting it together' : 'Make the bundle' }}
      </button>
    </template>
  </HandoffRow>
</template>
