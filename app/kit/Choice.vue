<script setup lang="ts" generic="Value extends string | number | null">
import { Listbox, ListboxButton } from '@headlessui/vue'
import type { VNode } from 'vue'
import { ChevronDown } from './icons'
import ChoiceList from './ChoiceList.vue'
import { optionsIn } from './choice-options'

/**
 * One of several things, in the desk's look. What can be chosen stands in the slot as `option` elements; the list opens
 * over everything else, so that no tray cuts it off.
 */
defineOptions({ inheritAttrs: false })
defineProps<{ disabled?: boolean }>()
const model = defineModel<Value>({ required: true })
const slots = defineSlots<{ default(): VNode[] }>()
const options = () => optionsIn(slots.default())
const titleNow = () => options().find(each => each.value === model.value)?.title ?? ''
const button = ref<{ $el: HTMLElement } | null>(null)
defineExpose({ element: computed(() => button.value?.$el ?? null) })
</script>

<template>
  <Listbox v-slot="{ open }" v-model="model" :disabled="disabled">
    <ListboxButton ref="button" role="combobox" class="field choice" :title="titleNow()" v-bind="$attrs">
      <span class="truncate">{{ titleNow() || '\u00A0' }}</span><ChevronDown
        :size="14"
        class="shrink-0 text-soft"
        aria-hidden="true"
      />
    </ListboxButton>
    <ChoiceList v-if="open && button" :anchor="button.$el" :options="options()" />
  </Listbox>
</template>
