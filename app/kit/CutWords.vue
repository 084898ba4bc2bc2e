<script setup lang="ts">
import { useEventListener } from '@vueuse/core'

/**
 * What is cut off with “…” anywhere can be read whole: it comes under it on hover and on focus. What has a title of its
 * own tells it by that.
 */
const words = ref('')
const place = ref<Record<string, string>>({})

/** The element whose text is cut, at or in what is pointed at or has the focus. */
function cutAt(target: EventTarget | null, focus: boolean): HTMLElement | null {
  if (!(target instanceof HTMLElement)) return null
  const element =
    target.closest<HTMLElement>('.truncate') ?? (focus ? target.querySelector<HTMLElement>('.truncate') : null)
  if (!element || element.scrollWidth <= element.clientWidth + 1) return null
  return !focus && element.closest('[title]') ? null : element
}
function show(target: EventTarget | null, focus: boolean): void {
  const element = cutAt(target, focus)
  words.value = element?.innerText.trim() ?? ''
  if (!element) return
  const box = element.getBoundingClientRect()
  place.value = {
    left: `${Math.max(8, Math.min(box.left - 8, window.innerWidth - 428))}px`,
    ...(box.bottom > window.innerHeight - 60
      ? { bottom: `${window.innerHeight - box.top + 2}px` }
      : { top: `${box.bottom + 2}px` }),
  }
}
const hide = () => {
  words.value = ''
}
useEventListener('pointerover', event => show(event.target, false))
useEventListener('focusin', event => {
  if ((event.target as HTMLElement).matches(':focus-visible')) show(event.target, true)
})
useEventListener('focusout', hide)
useEventListener('scroll', hide, { capture: true, passive: true })
useEventListener('keydown', event => {
  if (event.key === 'Escape') hide()
})
</script>

<template>
  <div v-if="words !== ''" aria-hidden="true" class="meaning !w-auto !max-w-[420px] !py-1" :style="place">
    {{ words }}
  </div>
</template>
