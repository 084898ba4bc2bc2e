<script setup lang="ts">
const props = defineProps<{
  tabs: readonly { readonly id: string; readonly title: string }[]
  open: string
  /** The id of what the tabs show. */
  controls?: string
}>()
const emit = defineEmits<{ open: [id: string] }>()

function move(event: KeyboardEvent, step: number): void {
  // From the tab that has the keyboard: opening one takes a moment, and keys may come faster.
  const focused = props.tabs.findIndex(tab => `tab-${tab.id}` === document.activeElement?.id)
  const at = focused >= 0 ? focused : props.tabs.findIndex(tab => tab.id === props.open)
  const next = props.tabs[(at + step + props.tabs.length) % props.tabs.length]!
  emit('open', next.id)
  const list = (event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[role=tab]')
  nextTick(() => list[props.tabs.indexOf(next)]?.focus())
}
</script>

<template>
  <div
    role="tablist"
    aria-orientation="vertical"
    aria-label="Stages"
    class="flex w-[34px] shrink-0 flex-col border-r border-ink bg-desk pt-4"
    @keydown.down.prevent="move($event, 1)"
    @keydown.up.prevent="move($event, -1)"
  >
    <button
      v-for="(tab, index) in tabs"
      :id="`tab-${tab.id}`"
      :key="tab.id"
      type="button"
      role="tab"
      :aria-selected="tab.id === open"
      :tabindex="tab.id === open ? 0 : -1"
      :aria-controls="controls"
      class="thumb"
      :class="tab.id === open ? 'z-10 -mr-px border-ink bg-paper font-semibold text-ink' : 'hover:text-ink'"
      :style="{ marginLeft: tab.id === open ? '0px' : `${Math.min(index, 5)}px` }"
      @click="emit('open', tab.id)"
    >
      {{ tab.title }}
    </button>
  </div>
</template>
