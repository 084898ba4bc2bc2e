<script setup lang="ts">
import CutWords from './kit/CutWords.vue'
</script>

<template>
  <NuxtPage />
  <CutWords />
</template>
