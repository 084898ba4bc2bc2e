<script setup lang="ts">
import type { ShelfCard } from '~~/shared/api'
import ShelfPicker from './ShelfPicker.vue'

/** Chooses several documents of the shelf, one after the other. */
defineProps<{ label: string }>()
const cards = defineModel<ShelfCard[]>({ required: true })
const picked = shallowRef<ShelfCard | null>(null)
watch(picked, card => {
  if (!card) return
  if (!cards.value.some(each => each.id === card.id)) cards.value = [...cards.value, card]
  void nextTick(() => (picked.value = null))
})
</script>

<template>
  <div>
    <ShelfPicker v-model="picked" :label="label" />
    <ul v-if="cards.length > 0" class="mt-1 flex flex-wrap gap-2 text-[13px]" aria-label="Chosen documents">
      <li v-for="card in cards" :key="card.id" class="border border-rule px-2 py-[2px]">
        {{ card.fileName }}
        <button
          type="button"
          class="text-soft"
          :aria-label="`Without ${card.fileName}`"
          @click="cards = cards.filter(each => each.id !== card.id)"
        >
          ×
        </button>
      </li>
    </ul>
  </div>
</template>
