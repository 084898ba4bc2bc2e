<script setup lang="ts">
import { Redo2, Undo2 } from '../kit/icons'
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import { useEventListener } from '@vueuse/core'
import FindField from './FindField.vue'
import { isTyping } from './typing'
import WordsAndKeys from './WordsAndKeys.vue'

defineProps<{ title?: string }>()
const desk = useDesk()
const words = useWords()
const find = ref<InstanceType<typeof FindField> | null>(null)
const history = computed(() => desk.info?.history ?? null)
const explaining = ref(false)
useEventListener('keydown', event => {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
  event.preventDefault()
  explaining.value = true
})
defineExpose({ find: () => find.value?.focus() })
</script>

<template>
  <header class="flex h-[40px] shrink-0 items-center gap-4 border-b border-ink px-5">
    <NuxtLink to="/" class="font-serif text-[21px] leading-none">Morphene</NuxtLink>
    <nav class="min-w-0 flex-1 truncate text-soft" aria-label="Where you are">
      <NuxtLink to="/" class="hover:text-ink">Shelf</NuxtLink>
      <template v-if="title">
        / <span class="font-semibold text-ink">{{ title }}</span></template
      >
    </nav>
    <template v-if="history">
      <span v-if="words.unsaved" class="shrink-0 text-[13px] text-soft" role="status">{{
        words.saving ? 'Storing …' : 'Typing …'
      }}</span>
      <FindField ref="find" />
      <button
        type="button"
        class="plain flex max-w-[260px] items-center gap-1.5 !py-[3px]"
        :disabled="!history.undo && !words.unsaved"
        :title="history.undo ? `Undo: ${history.undo.title}` : 'Nothing to undo'"
        @click="words.step('undo')"
      >
        <Undo2 :size="15" aria-hidden="true" /><span class="truncate">{{
          history.undo ? `Undo: ${history.undo.title}` : 'Nothing to undo'
        }}</span>
      </button>
      <button
        v-if="history.redo"
        type="button"
        class="plain flex max-w-[200px] items-center gap-1.5 !py-[3px]"
        :title="`Redo: ${history.redo.title}`"
        @click="words.step('redo')"
      >
        <Redo2 :size="15" aria-hidden="true" /><span class="truncate">Redo: {{ history.redo.title }}</span>
      </button>
    </template>
    <button
      type="button"
      class="plain !px-2.5 !py-[3px]"
      aria-label="Words and keys"
      title="Words and keys"
      @click="explaining = true"
    >
      ?
    </button>
    <WordsAndKeys v-model="explaining" />
  </header>
</template>
