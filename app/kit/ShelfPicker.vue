<script setup lang="ts">
import { ComboboxOption } from '@headlessui/vue'
import { watchDebounced } from '@vueuse/core'
import type { ShelfCard, ShelfPage } from '~~/shared/api'
import PickField from './PickField.vue'

/** Chooses a document of the shelf: what is written is looked for there, by name, title, folder and face. */
const props = defineProps<{
  label: string
  without?: string
  /** Finished PDFs can be chosen, too: most things are done with what is set here alone. */
  finished?: boolean
}>()
const model = defineModel<ShelfCard | null>({ required: true })
const query = ref('')
const found = ref<readonly ShelfCard[]>([])
const total = ref(0)
const said = ref('')
let asked = 0

async function look(): Promise<void> {
  const mine = ++asked
  try {
    const page = await $fetch<ShelfPage>('/api/shelf', {
      query: { find: query.value.trim(), sort: 'name', count: 50 },
    })
    if (mine !== asked) return
    found.value = page.cards.filter(card => card.id !== props.without && (props.finished || card.kind !== 'finished'))
    total.value = page.total
    said.value = found.value.length === 0 ? 'Nothing on the shelf answers to that' : ''
  } catch {
    said.value = 'The shelf cannot be reached'
  }
}
onMounted(look)
watchDebounced(query, look, { debounce: 150 })
</script>

<template>
  <PickField
    v-model="model"
    v-model:query="query"
    :label="label"
    placeholder="choose a document or template of the shelf"
    all="show what lies on the shelf"
    by="id"
    nullable
    :words="card => card?.fileName ?? ''"
  >
    <li v-if="said !== ''" class="px-3 py-1 text-soft">{{ said }}</li>
    <ComboboxOption v-for="card in found" :key="card.id" v-slot="{ active, selected }" :value="card" as="template">
      <li
        class="flex min-h-[28px] cursor-pointer items-baseline justify-between gap-3 px-3 py-[3px]"
        :class="{ 'bg-wash': active, 'font-semibold': selected }"
      >
        <span class="break-words">{{ card.fileName }}</span><span class="shrink-0 text-[12px] text-soft">{{
          card.title
        }}</span>
      </li>
    </ComboboxOption>
    <li v-if="total > 50" class="px-3 py-1 text-[13px] text-soft">
      50 of {{ total }} are listed: write more of the name to see the others.
    </li>
  </PickField>
</template>
