<script setup lang="ts">
import type { StyleSummary } from '~~/core/change/styles/style-list'
import { useLibrary } from '../../stores/library'

/**
 * A style's name, or other words, drawn in itself: large ones smaller and small ones larger, so that rows keep their
 * height.
 */
const props = defineProps<{ styleOf: Pick<StyleSummary, 'look' | 'displayName'>; words?: string }>()
const library = useLibrary()
const drawn = computed(() => {
  const { look } = props.styleOf
  return {
    fontFamily: library.cssFamily(look.face),
    fontSize: `${Math.max(12.5, Math.min(19, look.size * 1.35))}px`,
    lineHeight: '22px',
    color: look.status === 'absent' ? undefined : look.color || undefined,
    textTransform: /^(uppercase|lowercase|capitalize)$/.test(look.case) ? (look.case as 'uppercase') : undefined,
    fontVariant: look.case === 'small-caps' ? 'small-caps' : undefined,
    textDecoration: look.decoration || undefined,
  }
})
</script>

<template>
  <span class="min-w-0 truncate" :class="{ 'text-iris': styleOf.look.status === 'absent' }"
    ><span v-if="styleOf.look.status === 'absent'"
      ><span aria-hidden="true">◇ </span><span class="sr-only">absent face: </span></span
    ><span :style="drawn">{{ words ?? styleOf.displayName }}</span></span
  >
</template>
