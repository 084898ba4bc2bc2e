<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { useMe } from '../stores/me'

/** Who else is at this document now: told so that two do not change it past each other. */
const props = defineProps<{ document: string }>()
const me = useMe()
const others = shallowRef<readonly string[]>([])
/** How often is said that one is here. Milliseconds. */
const every = 20_000

async function say(): Promise<void> {
  if (document.visibilityState === 'hidden') return
  others.value = await $fetch<string[]>('/api/me/at', { method: 'PUT', body: { document: props.document } }).catch(
    () => [],
  )
}
/** A page that closes waits for no answer. */
function left(): void {
  const body = JSON.stringify({ document: props.document, left: true })
  const headers = { 'content-type': 'application/json' }
  void fetch('/api/me/at', { method: 'PUT', body, headers, keepalive: true }).catch(() => null)
}
onMounted(say)
useIntervalFn(say, every)
useEventListener('pagehide', left)
onBeforeUnmount(left)
const names = computed(() => others.value.map(each => me.nameOf(each) || 'somebody'))
const words = computed(() => {
  const [first, second] = names.value
  if (first === undefined) return ''
  if (names.value.length === 1) return `${first} is here, too`
  if (names.value.length === 2) return `${first} and ${second} are here, too`
  return `${first} and ${names.value.length - 1} others are here, too`
})
</script>

<template>
  <span role="status" class="max-w-[260px] truncate text-[13px]" :title="names.join(', ')"
    ><template v-if="words"><span aria-hidden="true" class="text-verdigris">● </span>{{ words }}</template></span
  >
</template>
