<script setup lang="ts">
import ThumbIndex from './ThumbIndex.vue'

defineProps<{ open: string }>()
const tabs = [
  { id: 'shelf', title: 'Shelf' },
  { id: 'library', title: 'Library' },
  { id: 'pairs', title: 'Pairs' },
  { id: 'colours', title: 'Colours' },
  { id: 'houses', title: 'Houses' },
  { id: 'across', title: 'All documents' },
  { id: 'records', title: 'Records' },
  { id: 'people', title: 'People' },
  { id: 'trash', title: 'Trash' },
] as const
const addresses: Readonly<Record<string, string>> = {
  shelf: '/',
  library: '/library',
  pairs: '/pairs',
  colours: '/colours',
  houses: '/houses',
  across: '/across',
  records: '/records',
  trash: '/trash',
  people: '/people',
}
const router = useRouter()
</script>

<template>
  <nav aria-label="Shelf" class="flex">
    <ThumbIndex :tabs="tabs" :open="open" @open="router.push(addresses[$event] ?? '/')" />
  </nav>
</template>
