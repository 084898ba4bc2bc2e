<script setup lang="ts">
import type { HandoffRequest } from '~~/core/format/handoff/request'
import { useDesk } from '../../stores/desk'
import HandoffRow from './HandoffRow.vue'
import { useHanding } from './use-handing'

/** Something that a document is made into without choices: each of its forms has a button. */
defineProps<{
  title: string
  says: string
  forms: readonly { readonly as: HandoffRequest['as']; readonly title: string }[]
}>()
const desk = useDesk()
const { making, refused, made, hand } = useHanding()
const make = (as: HandoffRequest['as']) => hand(`/api/documents/${desk.info!.document.id}/handoff`, { as })
</script>

<template>
  <HandoffRow :title="title" :says="says" :refused="refused" :made="made">
    <template #buttons>
      <button
        v-for="form in forms"
        :key="form.as"
        type="button"
        class="plain"
        :disabled="making"
        @click="make(form.as)"
      >
        {{ form.title }}
      </button>
    </template>
  </HandoffRow>
</template>
