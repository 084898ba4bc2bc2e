<script setup lang="ts">
import type { GivenRemark } from '~~/shared/remarks'
import { counted } from '../desk/words'
import { useMe } from '../stores/me'

/** Remarks over all documents that are given to whoever looks, on the shelf: one calm line, and the way to each. */
const me = useMe()
const given = shallowRef<readonly GivenRemark[]>([])
const all = ref(false)
/** So many are told at first. */
const few = 3
const shown = computed(() => given.value.slice(0, all.value ? given.value.length : few))
const short = (text: string) => (text.length > 70 ? `${text.slice(0, 67)}…` : text)
onMounted(async () => {
  given.value = await $fetch<GivenRemark[]>('/api/remarks').catch(() => [])
})
</script>

<template>
  <section v-if="given.length > 0" class="border border-iris bg-sheet px-4 py-2" aria-label="Remarks for you">
    <p>{{ counted(given.length, 'remark') }} {{ given.length === 1 ? 'is' : 'are' }} given to you.</p>
    <ul>
      <li v-for="each in shown" :key="each.id" class="flex flex-wrap items-baseline gap-x-2">
        <NuxtLink class="link py-0.5" :to="`/documents/${each.document}?stage=proof&panel=remarks`">{{
          each.fileName
        }}</NuxtLink><span>{{ short(each.text) }}</span
        ><span class="text-[13px] text-soft">{{ me.nameOf(each.author) }}</span>
      </li>
    </ul>
    <button v-if="!all && given.length > few" type="button" class="link py-0.5" @click="all = true">Show all</button>
  </section>
</template>
