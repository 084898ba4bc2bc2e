<script setup lang="ts">
import type { Checklist } from '~~/core/proof/checklist'
import ChecksEditor from '../../proof/ChecksEditor.vue'
import { useProof } from '../../stores/proof'

/** Which checks run, how much each matters, and by which limits; kept for the desk. */
const proof = useProof()
const list = ref<Checklist>(JSON.parse(JSON.stringify(proof.deskList)) as Checklist)
const heading = ref<HTMLElement | null>(null)
onMounted(() => heading.value?.focus())

const usual = () => {
  list.value = { ...list.value, checks: {} }
}
</script>

<template>
  <div>
    <button type="button" class="link" @click="proof.panel = 'findings'">All findings</button>
    <h1 ref="heading" tabindex="-1" class="mt-1 outline-none">Checklist</h1>
    <p class="text-soft">
      Which checks run, how much they matter, by which limits. A house’s own limits hold where the document has a house.
    </p>
    <p v-if="proof.house?.checks" class="notice mt-2">
      This document goes by the checklist of its house, {{ proof.house.name }}, which is set at
      <NuxtLink class="link" to="/houses">Houses</NuxtLink>. What stands here is the desk’s own, for all others.
    </p>
    <div class="sticky top-0 z-10 mt-2 flex gap-2 border-b border-rule bg-paper py-2">
      <button type="button" class="act" @click="proof.keepChecklist(list)">Keep it and look again</button>
      <button type="button" class="plain" @click="usual">All as usual</button>
      <button type="button" class="plain" @click="proof.panel = 'findings'">Leave it</button>
    </div>
    <ChecksEditor :checks="proof.checks" :list="list.checks" @change="list = { ...list, checks: $event }" />
  </div>
</template>
