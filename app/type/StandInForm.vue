<script setup lang="ts">
import { standInScripts, type StandIn } from '~~/core/font/library'
import Choice from '../kit/Choice.vue'
import { useLibrary } from '../stores/library'
import { scriptWords } from './face-words'

/** Who shall stand in for an absent family, or for all, in which text. More that is asked stands in the slot. */
const props = defineProps<{
  /** Families that are absent. */
  absent: readonly string[]
  busy: boolean
  /** Takes the choice; whether that was done. */
  add: (standIn: StandIn) => Promise<boolean> | boolean
}>()
const library = useLibrary()
const script = ref<StandIn['script']>('western')
const family = ref('')
const to = ref('')
async function take(): Promise<void> {
  if (to.value !== '' && (await props.add({ family: family.value, script: script.value, to: to.value }))) to.value = ''
}
</script>

<template>
  <form class="mt-2 flex flex-wrap items-end gap-2 text-[13px] text-soft" @submit.prevent="take">
    <slot />
    <label
      >Absent
      <Choice v-model="family" class="flex max-w-[150px] text-ink">
        <option value="">any family</option>
        <option v-for="each in absent" :key="each" :value="each">{{ each }}</option>
      </Choice></label
    >
    <label
      >In
      <Choice v-model="script" class="flex text-ink">
        <option v-for="each in standInScripts" :key="each" :value="each">{{ scriptWords(each) }}</option>
      </Choice></label
    >
    <label
      >Stands in
      <Choice v-model="to" class="flex max-w-[170px] text-ink">
        <option value="">choose a family</option>
        <option v-for="each in library.library?.familyNames ?? []" :key="each" :value="each">{{ each }}</option>
      </Choice></label
    >
    <button type="submit" class="plain" :disabled="to === '' || busy">Set it</button>
  </form>
</template>
