<script setup lang="ts">
import { shownFeature, shownFeatures } from '~~/core/font/features'

/** OpenType features that a face offers, as a style sets them: what is as usual is not said. */
const props = defineProps<{
  /** Tags of the features that the face has. */ offered: readonly string[]
  features: Readonly<Record<string, number>>
  family: string
}>()
const emit = defineEmits<{ set: [features: Record<string, number>] }>()
const shown = computed(() => shownFeatures(props.offered))
const usualOf = (tag: string): boolean => shownFeature(tag)?.usual ?? false
const isOn = (tag: string): boolean => (props.features[tag] === undefined ? usualOf(tag) : props.features[tag] !== 0)

function set(tag: string, on: boolean): void {
  const { [tag]: _old, ...others } = props.features
  emit('set', on === usualOf(tag) ? others : { ...others, [tag]: on ? 1 : 0 })
}
</script>

<template>
  <details v-if="shown.length > 0" class="mt-2">
    <summary class="cursor-pointer font-medium">OpenType features of {{ family }}</summary>
    <div class="mt-1 grid grid-cols-2 gap-x-4">
      <label v-for="each in shown" :key="each.tag" class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="isOn(each.tag)"
          @change="set(each.tag, ($event.target as HTMLInputElement).checked)"
        />
        {{ each.title }} <span class="text-[12px] text-soft">{{ each.tag }}</span></label
      >
    </div>
    <p class="mt-1 text-[13px] text-soft">
      OpenDocument has no place for features: they are kept in Morphene’s own part, and other programs set the text
      without them.
    </p>
  </details>
</template>
