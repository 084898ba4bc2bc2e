<script setup lang="ts">
import type { Folder } from '~~/shared/api'
import Tick from '../kit/Tick.vue'
import { useMe } from '../stores/me'
import { useShelf } from '../stores/shelf'

/** Who sees a folder: everybody of the studio, or some of them and its owners. */
const props = defineProps<{ folder: Folder }>()
const me = useMe()
const shelf = useShelf()
const open = ref(false)
const chosen = ref<readonly string[]>([])
const words = computed(() => {
  const names = props.folder.members.map(each => me.nameOf(each) || 'somebody')
  if (names.length === 0) return 'Everybody sees this folder'
  return `Seen by ${names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ')}, and owners`
})
function begin(): void {
  chosen.value = props.folder.members
  open.value = true
}
function set(person: string, isIn: boolean): void {
  chosen.value = isIn ? [...chosen.value, person] : chosen.value.filter(each => each !== person)
}
async function keep(): Promise<void> {
  if (await shelf.setMembers(props.folder.id, chosen.value)) open.value = false
}
</script>

<template>
  <span v-if="!open" class="flex items-center gap-2 text-soft"
    >{{ words }}
    <button v-if="me.may('people')" type="button" class="link" @click="begin">Say who sees it</button></span
  >
  <fieldset v-else class="flex w-full flex-wrap items-center gap-x-4 gap-y-1 border border-rule bg-sheet px-3 py-2">
    <legend class="px-1">Who sees “{{ folder.name }}”, beside the owners</legend>
    <label v-for="person in me.me?.here ?? []" :key="person" class="flex items-center gap-1.5 py-1"
      ><Tick :checked="chosen.includes(person)" @change="set(person, $event)" />{{ me.nameOf(person) }}</label
    >
    <button type="button" class="act" @click="keep">
      {{ chosen.length === 0 ? 'Open it to everybody' : 'Keep it to them' }}
    </button>
    <button type="button" class="plain" @click="open = false">Leave it</button>
  </fieldset>
</template>
