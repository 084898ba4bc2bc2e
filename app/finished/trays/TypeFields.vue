<script setup lang="ts">
import { plainNumber } from '~~/core/style/describe'
import Choice from '../../kit/Choice.vue'
import Tick from '../../kit/Tick.vue'
import { useLibrary } from '../../stores/library'
import { useType } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'
import type { AddedDraft } from '../../stores/finished-edits'

/** What added text is set in: family, weight, size, leading, colour. */
const draft = defineModel<Omit<AddedDraft, 'text'>>({ required: true })
const type = useType()
const library = useLibrary()
const weights = computed(() => {
  const own = library.library?.family(draft.value.family) ?? []
  const list = [...new Set(own.map(face => face.weight))]
  return list.length > 0 ? list : [draft.value.weight]
})
const hasItalic = computed(() => library.library?.family(draft.value.family).some(face => face.slant === 'italic'))
const set = (change: Partial<AddedDraft>) => {
  draft.value = { ...draft.value, ...change }
}
/** A number that was typed, with whatever unit points have. */
const typed = (event: Event) =>
  Number.parseFloat((event.target as HTMLInputElement).value.replace(',', '.').replace(/\s*pt\s*$/i, ''))
function setSize(event: Event): void {
  const size = typed(event)
  if (size > 0 && size <= 2000) set({ size })
  else (event.target as HTMLInputElement).value = plainNumber(draft.value.size)
}
function setLeading(event: Event): void {
  const leading = typed(event)
  set({ leading: leading > 0 ? leading : null })
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)_92px_92px] gap-3">
    <FamilyPicker
      :model-value="draft.family"
      :choices="type.choices"
      label="Family"
      placeholder="Search the library"
      @update:model-value="$event && set({ family: $event })"
    />
    <label class="text-[13px] text-soft"
      >Size, pt<input
        v-typed="plainNumber(draft.size)"
        inputmode="decimal"
        class="field mt-[2px] w-full text-ink"
        @change="setSize"
    /></label>
    <label class="text-[13px] text-soft"
      >Leading, pt<input
        v-typed="draft.leading === null ? '' : plainNumber(draft.leading)"
        inputmode="decimal"
        placeholder="of the face"
        class="field mt-[2px] w-full text-ink"
        @change="setLeading"
    /></label>
    <div class="col-span-3 flex flex-wrap items-end gap-x-5 gap-y-2 text-[13px] text-soft">
      <label
        >Weight
        <Choice
          class="flex w-[92px] text-ink"
          :model-value="draft.weight"
          @update:model-value="set({ weight: $event })"
        >
          <option v-for="weight in weights" :key="weight" :value="weight">{{ weight }}</option>
        </Choice></label
      >
      <label class="flex items-center gap-2 pb-1.5 text-ink"
        ><Tick :checked="draft.italic" :disabled="!hasItalic" @change="set({ italic: $event })" />Italic</label
      >
      <label
        >Colour<span class="mt-[2px] flex h-[30px] items-center gap-2"
          ><input
            v-typed="draft.color"
            type="color"
            class="h-[26px] w-[40px]"
            @change="set({ color: ($event.target as HTMLInputElement).value })"
          /><span class="text-ink">{{ draft.color }}</span></span
        ></label
      >
    </div>
  </div>
</template>
