<script setup lang="ts">
import Choice from '../kit/Choice.vue'
import { useMe } from '../stores/me'

/** Who is asked to see to something: one of those who work here, or nobody in particular. */
defineProps<{ label: string }>()
const to = defineModel<string | null>({ required: true })
const me = useMe()
</script>

<template>
  <Choice v-model="to" :aria-label="label">
    <option :value="null">nobody in particular</option>
    <option v-for="person in me.me?.here ?? []" :key="person" :value="person">{{ me.nameOf(person) }}</option>
  </Choice>
</template>
