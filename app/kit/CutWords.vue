<script setup lang="ts">
import { useEventListener } from '@vueuse/core'

/**
 * What is cut off with “…” anywhere can be read whole: it comes under it on hover and on focus, and with it what else
 * its title says.
 */
const words = ref('')
const place = ref<Record<string, string>>({})

/** The element that is cut, or says more than it shows, at or in what is pointed at or has the focus. */
function elementAt(target: EventTarget | null, focus: boolean): HTMLElement | null {
  if (!(target instanceof HTMLElement)) return null
  const own = target.closest<HTMLElement>('.truncate')
  return own ?? (focus ? target.querySelector<HTMLElement>('.truncate') : null)
}
/** What it says in all: its title, which the browser is not to show beside this, else its text where that is cut. */
function wholeOf(element: HTMLElement): string {
  if (element.title !== '') {
    element.dataset.says = element.title
    element.removeAttribute('title')
  }
  const text = element.innerText.trim()
  const says = element.dataset.says ?? text
  return says !== text || element.scrollWidth > element.clientWidth + 1 ? says : ''
}
function show(target: EventTarget | null, focus: boolean): void {
  const element = elementAt(target, focus)
  words.value = element && (focus || !element.parentElement?.closest('[title]')) ? wholeOf(element) : ''
  if (!element || words.value === '') return
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
