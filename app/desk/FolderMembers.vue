<script setup lang="ts">
import type { Folder } from '~~/shared/api'
import { roles, type FolderMember, type PersonRole } from '~~/shared/people'
import Choice from '../kit/Choice.vue'
import { useMe } from '../stores/me'
import { useShelf } from '../stores/shelf'

/** Who sees a folder, and what they do there: everybody of the studio, or some of them and its owners. */
const props = defineProps<{ folder: Folder }>()
const me = useMe()
const shelf = useShelf()
const open = ref(false)
const chosen = ref<Readonly<Record<string, PersonRole>>>({})
const does: Readonly<Record<PersonRole, string>> = {
  owner: 'also says who sees it',
  designer: 'works on it',
  reader: 'looks and remarks',
}
const words = computed(() => {
  const names = props.folder.members
    .map(({ person, role }) => `${me.nameOf(person) || 'somebody'}${role === 'reader' ? ' (looks and remarks)' : ''}`)
    .sort((one, other) => one.localeCompare(other))
  if (names.length === 0) return 'Everybody sees this folder'
  return `Seen by ${names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ')}, and owners`
})
function begin(): void {
  chosen.value = Object.fromEntries(props.folder.members.map(({ person, role }) => [person, role]))
  open.value = true
}
function set(person: string, role: PersonRole | ''): void {
  const { [person]: _, ...others } = chosen.value
  chosen.value = role === '' ? others : { ...others, [person]: role }
}
async function keep(): Promise<void> {
  const members: FolderMember[] = Object.entries(chosen.value).map(([person, role]) => ({ person, role }))
  if (await shelf.setMembers(props.folder.id, members)) open.value = false
}
</script>

<template>
  <span v-if="!open" class="flex items-center gap-2 text-soft"
    >{{ words }} <button v-if="folder.owns" type="button" class="link" @click="begin">Say who sees it</button></span
  >
  <fieldset v-else class="flex w-full flex-wrap items-center gap-x-5 gap-y-1 border border-rule bg-sheet px-3 py-2">
    <legend class="px-1">Who sees “{{ folder.name }}”, beside the owners of the desk</legend>
    <label v-for="person in me.me?.here ?? []" :key="person" class="flex items-center gap-1.5 py-1"
      >{{ me.nameOf(person) }}
      <Choice
        :model-value="chosen[person] ?? ''"
        :aria-label="`What ${me.nameOf(person)} does in this folder`"
        @update:model-value="set(person, $event as PersonRole | '')"
      >
        <option value="">does not see it</option>
        <option v-for="role in [...roles].reverse()" :key="role" :value="role">{{ does[role] }}</option>
      </Choice></label
    >
    <p class="w-full text-[13px] text-soft">
      Whoever works on it opens its documents to change them, and takes them away, though a reader elsewhere.
    </p>
    <button type="button" class="act" @click="keep">
      {{ Object.keys(chosen).length === 0 ? 'Open it to everybody' : 'Keep it to them' }}
    </button>
    <button type="button" class="plain" @click="open = false">Leave it</button>
  </fieldset>
</template>
