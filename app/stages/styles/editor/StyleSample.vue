<script setup lang="ts">
import { requestOf } from '~~/core/font/library'
import { leadingKind, leadingPoints } from '~~/core/style/typed'
import { useLibrary } from '../../../stores/library'

/** Words as a style sets them, at their size; whoever edits it may write others. */
const props = defineProps<{
  text: string
  family: string
  /** In points. */ size: number
  /** As the format has it: “normal”, a length or a share. */ leading: string
  weight: number
  italic: boolean
  color: string
  ground: string
  features: Readonly<Record<string, number>>
}>()
const library = useLibrary()
const pixels = (points: number): string => `${(points * 96) / 72}px`

const look = computed(() => {
  // A face that is named as a family is found, too, and what is absent is shown as on the pages.
  const found = library.library?.resolve(requestOf(props.family, props.weight, props.italic))
  return {
    fontFamily: found ? library.cssFamily(found.face.hash) : undefined,
    fontSize: pixels(props.size),
    lineHeight: leadingKind(props.leading) === 'face' ? 'normal' : pixels(leadingPoints(props.leading, props.size)),
    color: props.color,
    background: props.ground === '#ffffff' ? undefined : props.ground,
    fontFeatureSettings:
      Object.entries(props.features)
        .map(([tag, value]) => `'${tag}' ${value}`)
        .join(', ') || undefined,
  }
})
</script>

<template>
  <p
    class="max-h-[132px] overflow-hidden border border-rule bg-sheet p-3"
    :style="look"
    contenteditable="plaintext-only"
    spellcheck="false"
    aria-label="Sample: write here what you like"
    role="textbox"
  >
    {{ text || 'The first boat leaves Saltmere Quay at eight, whatever the weather says.' }}
  </p>
</template>
