<script setup lang="ts">
import NoticeLine from '../../kit/NoticeLine.vue'
import { useFinished } from '../../stores/finished'

/** What is said of a change that is being looked at or was made, with what stands in its way. */
const finished = useFinished()
</script>

<template>
  <p v-if="finished.trying" role="status" class="mt-3 text-soft">Trying it on the page …</p>
  <NoticeLine v-if="finished.message" kind="failed">{{ finished.message }}</NoticeLine>
  <NoticeLine v-if="finished.done" kind="done">{{ finished.done }}</NoticeLine>
</template>
