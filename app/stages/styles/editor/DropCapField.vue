<script setup lang="ts">
import type { StyleChanges } from '~~/core/style/style-changes'
import Choice from '../../../kit/Choice.vue'

/** The drop cap of a style: over how many lines, how many letters, in which character style. */
type DropCap = NonNullable<StyleChanges['dropCap']>
const props = defineProps<{
  dropCap: DropCap | null
  characterStyles: readonly { readonly name: string; readonly displayName: string }[]
}>()
const emit = defineEmits<{ set: [dropCap: DropCap | null] }>()
const set = (part: Partial<DropCap>): void =>
  emit('set', { lines: 3, length: 1, distance: 3, style: null, ...(props.dropCap ?? {}), ...part })
const counted = (event: Event, otherwise: number): number =>
  Math.max(1, Number((event.target as HTMLInputElement).value) || otherwise)
</script>

<template>
  <div class="grid min-h-[30px] grid-cols-[128px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <span>Drop cap</span>
    <span class="flex flex-wrap items-center gap-2">
      <label class="flex items-center gap-1.5"
        ><input type="checkbox" :checked="dropCap !== null" @change="dropCap ? emit('set', null) : set({})" />
        over</label
      >
      <template v-if="dropCap"
        ><input
          v-typed="dropCap.lines"
          type="number"
          min="2"
          max="9"
          class="field !min-h-[26px] w-[52px] !py-0"
          aria-label="Lines of the drop cap"
          @change="set({ lines: counted($event, 3) })"
        />
        lines,
        <input
          v-typed="dropCap.length"
          type="number"
          min="1"
          max="9"
          class="field !min-h-[26px] w-[52px] !py-0"
          aria-label="Letters of the drop cap"
          @change="set({ length: counted($event, 1) })"
        />
        letters
        <Choice
          class="!min-h-[26px] !py-0"
          aria-label="Character style of the drop cap"
          :model-value="dropCap.style ?? ''"
          @update:model-value="set({ style: $event || null })"
        >
          <option value="">in the paragraph’s type</option>
          <option v-for="each in characterStyles" :key="each.name" :value="each.name">{{ each.displayName }}</option>
        </Choice></template
      >
    </span>
  </div>
</template>
