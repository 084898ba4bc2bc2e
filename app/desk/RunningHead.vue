<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { useMe } from '../stores/me'
import { isTyping } from './typing'
import WordsAndKeys from './WordsAndKeys.vue'

/** Where one is, and the words and keys; what belongs to a document on the desk stands between. */
defineProps<{ title?: string }>()
const store = useMe()
const explaining = ref(false)
useEventListener('keydown', event => {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
  event.preventDefault()
  explaining.value = true
})
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
    <slot />
    <NuxtLink
      v-if="store.isShared && store.me?.person"
      to="/people"
      class="max-w-[140px] truncate text-[13px] text-soft hover:text-ink"
      >{{ store.me.person.name }}</NuxtLink
    >
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
