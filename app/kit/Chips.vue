<script setup lang="ts" generic="Id extends string">
/** One of a few things, side by side. Arrow keys go from one to the next, as they do among radio buttons. */
const props = defineProps<{
  label: string
  options: readonly { readonly id: Id; readonly title: string; readonly count?: number }[]
}>()
const model = defineModel<Id>({ required: true })
const holder = ref<HTMLElement | null>(null)
function key(event: KeyboardEvent): void {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  if (step === undefined) return
  event.preventDefault()
  const at = props.options.findIndex(each => each.id === model.value)
  const to = (at + step + props.options.length) % props.options.length
  model.value = props.options[to]!.id
  holder.value?.querySelectorAll('button')[to]?.focus()
}
</script>

<template>
  <div ref="holder" role="radiogroup" :aria-label="label" class="flex flex-wrap gap-1.5" @keydown="key">
    <button
      v-for="each in options"
      :key="each.id"
      type="button"
      role="radio"
      :aria-checked="model === each.id"
      :tabindex="model === each.id ? 0 : -1"
      class="rounded-[3px] border border-rule px-2.5 py-[3px] text-[13px]"
      :class="model === each.id ? 'bg-ink text-white' : 'bg-sheet'"
      @click="model = each.id"
    >
      {{ each.title
      }}<template v-if="each.count !== undefined"
        >{{ ' ' }}<span :class="{ 'text-soft': model !== each.id }">{{ each.count }}</span></template
      >
    </button>
  </div>
</template>
