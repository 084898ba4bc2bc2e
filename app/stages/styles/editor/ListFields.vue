<script setup lang="ts">
import Choice from '../../../kit/Choice.vue'

/** The list that a paragraph style begins, what its labels are set in, and its level in the outline. */
defineProps<{
  listStyle: string | null
  listLabel: string | null
  outlineLevel: number | null
  lists: readonly string[]
  characterStyles: readonly { readonly name: string; readonly displayName: string }[]
}>()
const emit = defineEmits<{
  set: [
    changes:
      | { readonly listStyle: string | null }
      | { readonly listLabel: string | null }
      | { readonly outlineLevel: number | null },
  ]
}>()
</script>

<template>
  <div class="grid min-h-[30px] grid-cols-[128px_170px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <label for="list-style">List</label>
    <Choice
      id="list-style"
      class="!min-h-[26px] w-full !py-0"
      :model-value="listStyle ?? ''"
      @update:model-value="emit('set', { listStyle: $event || null })"
    >
      <option value="">none of its own</option>
      <option v-for="each in lists" :key="each" :value="each">{{ each.replace(/_20_/g, ' ') }}</option>
    </Choice>
    <label class="flex items-center gap-1.5 text-[13px] text-soft"
      >labels in
      <Choice
        class="!min-h-[26px] max-w-[150px] !py-0 text-ink"
        aria-label="Character style of the list’s labels"
        :model-value="listLabel ?? ''"
        @update:model-value="emit('set', { listLabel: $event || null })"
      >
        <option value="">the item’s type</option>
        <option v-for="each in characterStyles" :key="each.name" :value="each.name">{{ each.displayName }}</option>
      </Choice></label
    >
  </div>
  <div class="grid min-h-[30px] grid-cols-[128px_170px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <label for="outline-level">Outline level</label>
    <Choice
      id="outline-level"
      class="!min-h-[26px] w-full !py-0"
      :model-value="outlineLevel ?? ''"
      @update:model-value="emit('set', { outlineLevel: Number($event) || null })"
    >
      <option value="">body text</option>
      <option v-for="level in 9" :key="level" :value="level">heading {{ level }}</option>
    </Choice>
  </div>
</template>
