<script setup lang="ts">
import type { StyleSummary } from '~~/core/change/styles/style-list'
import { contrast } from '~~/core/colour/contrast'
import { useLibrary } from '../../stores/library'

/**
 * A style's name, or other words, drawn in itself: large ones smaller and small ones larger, so that rows keep their
 * height.
 */
const props = defineProps<{ styleOf: Pick<StyleSummary, 'look' | 'displayName'>; words?: string }>()
const library = useLibrary()
/** The tray's paper, and from which contrast with it words can be told at all; fainter ones stand on ink. */
const paper = '#f6f4ee'
const seen = 1.6
const drawn = computed(() => {
  const { look } = props.styleOf
  const color = look.status === 'absent' ? '' : look.color
  const faint = color !== '' && contrast(color, paper) < seen
  return {
    ...(faint ? { background: 'var(--color-ink)', padding: '0 4px' } : {}),
    fontFamily: library.cssFamily(look.face),
    fontSize: `${Math.max(12.5, Math.min(19, look.size * 1.35))}px`,
    lineHeight: '22px',
    color: color || undefined,
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
