<script setup lang="ts">
import { counted } from '../desk/words'
import Term from '../kit/Term.vue'
import { useFaceLists } from '../stores/kept'
import type { Folder } from '~~/shared/api'
import Tick from '../kit/Tick.vue'
import { deskSets, useType, type FaceGroup, type FixedGroup } from '../stores/type'
import Chips from '../kit/Chips.vue'

/** What is looked for, how it was understood, and which faces are looked among. */
const type = useType()
const groupWords: Readonly<Record<string, string>> = {
  all: 'All',
  on: 'Switched on',
  document: 'In this document',
  suits: 'Suits this document',
  shortlist: 'Shortlist',
  added: 'Added here',
  twice: 'There twice',
  ended: 'Licence ended',
} satisfies Record<FixedGroup, string>
const groupTitle = (id: FaceGroup): string => groupWords[id] ?? type.listName(id)
const lists = useFaceLists()
const list = computed(() => lists.list.find(each => `list ${each.id}` === type.group) ?? null)
async function dropList(): Promise<void> {
  const id = list.value!.id
  type.group = 'all'
  await lists.drop(id)
}
const folders = shallowRef<readonly { readonly id: string; readonly name: string }[]>([])
watch(
  () => list.value?.id,
  async id => {
    if (id !== undefined) folders.value = await $fetch<Folder[]>('/api/folders').catch(() => [])
  },
)
const places = computed(() => [{ id: deskSets, name: 'the whole desk' }, ...folders.value])
const emit = defineEmits<{ down: [] }>()
</script>

<template>
  <div>
    <div class="flex items-center gap-3">
      <input
        v-model="type.typed"
        type="search"
        class="field min-w-0 flex-1"
        placeholder="A name or a look: rough condensed, humanist sans x-height over 520"
        aria-label="Search faces by name, look and measure"
        maxlength="300"
        autocomplete="off"
        spellcheck="false"
        @keydown.down.prevent="emit('down')"
      />
      <span class="shrink-0 text-soft" role="status">{{
        type.result.found.length === type.all.length
          ? counted(type.all.length, 'family', 'families')
          : `${type.result.found.length} of ${counted(type.all.length, 'family', 'families')}`
      }}</span>
    </div>
    <ul v-if="type.result.parts.length > 0" class="mt-2 flex flex-wrap gap-1.5" aria-label="How it was understood">
      <li v-for="part in type.result.parts" :key="part.from">
        <button
          type="button"
          class="rounded-[3px] border px-2 py-[2px] text-[13px]"
          :class="part.kind === 'unknown' ? 'border-ochre text-ochre' : 'border-verdigris bg-wash'"
          :aria-label="`${part.said}: take this away`"
          @click="type.take(part)"
        >
          {{ part.said }} <span aria-hidden="true">×</span>
        </button>
      </li>
    </ul>
    <div class="mt-2 flex flex-wrap items-center gap-1.5">
      <Chips
        v-model="type.group"
        label="Which faces"
        :options="type.groups.map(({ id, count }) => ({ id, title: groupTitle(id), count }))"
      />
      <button v-if="list" type="button" class="link text-[13px]" @click="dropList">Let go of this list</button>
      <span v-if="type.facets.length > 1" class="ml-2 flex flex-wrap gap-x-3 gap-y-1 text-[13px]">
        <button v-for="each in type.facets" :key="each.id" type="button" class="link" @click="type.ask(each.id)">
          {{ each.id }} <span class="text-soft">{{ each.count }}</span>
        </button>
      </span>
    </div>
    <fieldset v-if="list" class="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[13px]">
      <legend class="sr-only">Where the list is switched on</legend>
      <span class="text-soft">Switched on for</span>
      <label v-for="place in places" :key="place.id" class="flex items-center gap-1.5"
        ><Tick :checked="type.isListOn(list.id, place.id)" @change="type.switchList(list.id, place.id, $event)" />
        {{ place.name }}</label
      >
      <span class="text-soft">What is off stays out of pickers, not out of documents.</span>
    </fieldset>
    <label class="mt-2 flex items-center gap-2 text-[13px] text-soft"
      ><Term word="ownWords">Set in own words</Term>
      <input
        v-model="type.words"
        class="field min-w-0 flex-1 !min-h-[26px] !py-[2px]"
        maxlength="120"
        :placeholder="type.shown"
        aria-label="Own words"
      />
    </label>
  </div>
</template>
