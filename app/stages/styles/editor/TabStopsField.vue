<script setup lang="ts">
import { saidTabs, typedTabs, type TabStopValue } from '~~/core/style/typed'

/** The tab stops of a style, as one line of text. */
defineProps<{ tabs: readonly TabStopValue[] }>()
const emit = defineEmits<{ set: [tabs: TabStopValue[] | null] }>()
const wrong = ref('')
function typed(event: Event): void {
  const read = typedTabs((event.target as HTMLInputElement).value)
  wrong.value =
    'wrong' in read ? `“${read.wrong}” is no tab stop. Write for instance 36 pt; 4 cm right .; 6 cm at ,` : ''
  if ('tabs' in read) emit('set', read.tabs)
}
</script>

<template>
  <div class="grid min-h-[30px] grid-cols-[128px_1fr] items-center gap-x-3 border-b border-rule py-[2px]">
    <label for="tabs">Tab stops</label
    ><span
      ><input
        id="tabs"
        v-typed="saidTabs(tabs)"
        class="field !min-h-[26px] w-full !py-0"
        placeholder="36 pt; 4 cm right .; 6 cm at ,"
        @change="typed"
      /><span v-if="wrong" role="alert" class="text-[13px] text-rubric">{{ wrong }}</span></span
    >
  </div>
</template>
