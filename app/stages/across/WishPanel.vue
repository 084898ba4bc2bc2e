<script setup lang="ts">
import { recastSentence } from '~~/core/change/recast/wish'
import Choice from '../../kit/Choice.vue'
import { useAcross } from '../../stores/across'
import { useMe } from '../../stores/me'
import { useType, type FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'
import { counted } from '../../desk/words'
import Term from '../../kit/Term.vue'
import Chips from '../../kit/Chips.vue'

/** A wish over the documents that are ticked: a swap, a recast, or one that was kept. */
const across = useAcross()
const me = useMe()
const kind = ref<'swap' | 'recast'>('swap')
const going = computed((): FamilyChoice[] =>
  across.census.families.map(use => ({
    family: use.value,
    absent: use.status === 'absent',
    hash: null,
    note: `${use.status === 'absent' ? 'absent, ' : ''}${counted(use.documents.length, 'document')}`,
  })),
)
const coming = computed((): FamilyChoice[] => useType().choices)
const newFamilies = computed((): FamilyChoice[] => [
  { family: '', note: 'leave it', hash: null, absent: false },
  ...coming.value,
])
const anyFamily = computed((): FamilyChoice[] => [
  { family: '', note: 'any family', hash: null, absent: false },
  ...going.value,
])
const modes = [
  ['keep', 'size as it is'],
  ['x-height', 'equal x-height'],
  ['cap-height', 'equal cap height'],
  ['width', 'equal width'],
  ['lines', 'so that lines stay'],
] as const
const complete = computed(() => across.swaps.some(each => each.from !== '' && each.to !== ''))
const form = computed(() => across.form)
// A size or colour that was looked at belongs to a recast.
watch(
  () => [across.of, across.use],
  () => {
    if (across.use !== null) kind.value = across.of === 'families' ? 'swap' : 'recast'
  },
)
const states: Readonly<Record<string, string>> = {
  planning: 'being planned',
  planned: 'planned, not carried out',
  running: 'being carried out',
  paused: 'paused',
  done: 'done',
  cancelled: 'cancelled',
  undone: 'taken back',
}
</script>

<template>
  <h1>One <Term word="plan">plan</Term> for many</h1>
  <p class="text-soft">
    {{
      across.selected.length === 0
        ? 'Tick documents on the left.'
        : `For ${counted(across.selected.length, 'document')}.`
    }}
    Each is planned by itself; nothing changes until you have seen what it does.
  </p>
  <Chips
    v-model="kind"
    class="mt-3"
    label="Kind of wish"
    :options="[
      { id: 'swap', title: 'Swap faces' },
      { id: 'recast', title: 'Recast text or colours' },
    ]"
  />
  <template v-if="kind === 'swap'">
    <div v-for="(swap, index) in across.swaps" :key="index" class="mt-3 flex items-end gap-2">
      <FamilyPicker v-model="swap.from" :choices="going" label="Goes" placeholder="A family of the shelf" />
      <FamilyPicker v-model="swap.to" :choices="coming" label="Comes" placeholder="Search the library" />
      <Choice v-model="swap.size" class="w-[128px]" :aria-label="`Size of swap ${index + 1}`">
        <option v-for="[value, title] in modes" :key="value" :value="value">{{ title }}</option>
      </Choice>
      <button
        v-if="across.swaps.length > 1"
        type="button"
        class="link pb-1.5"
        :aria-label="`Remove swap ${index + 1}`"
        @click="across.swaps.splice(index, 1)"
      >
        ×
      </button>
    </div>
    <button type="button" class="link mt-2" @click="across.swaps.push({ from: '', to: '', size: 'keep' })">
      And another at the same time
    </button>
    <p class="mt-3">
      <button
        type="button"
        class="act"
        :disabled="!complete || across.selected.length === 0 || across.busy"
        @click="across.beginSwap()"
      >
        Plan it for {{ counted(across.selected.length, 'document') }}
      </button>
    </p>
  </template>
  <template v-else>
    <label class="mt-3 block text-[13px] text-soft"
      >Find words
      <input
        v-model="form.text"
        class="field block w-full text-[14px] text-ink"
        placeholder="any words"
        maxlength="1000"
    /></label>
    <p class="mt-1 flex gap-4 text-[13px]">
      <label class="flex items-center gap-1.5"
        ><input v-model="form.expression" type="checkbox" class="size-[14px]" />a regular expression</label
      ><label class="flex items-center gap-1.5"
        ><input v-model="form.matchCase" type="checkbox" class="size-[14px]" />match case</label
      ><label class="flex items-center gap-1.5"
        ><input v-model="form.wholeWords" type="checkbox" class="size-[14px]" />whole words</label
      >
    </p>
    <div class="mt-2 flex items-end gap-2 text-[13px] text-soft">
      <FamilyPicker v-model="form.family" :choices="anyFamily" label="In the family" placeholder="any family" /><label
        >Size from
        <input
          v-model.number="form.sizeLeast"
          type="number"
          step="0.1"
          class="field block w-[76px] text-ink"
          placeholder="any" /></label
      ><label
        >to
        <input
          v-model.number="form.sizeMost"
          type="number"
          step="0.1"
          class="field block w-[76px] text-ink"
          placeholder="any"
      /></label>
    </div>
    <div class="mt-2 flex items-end gap-2">
      <label class="flex items-center gap-1.5 pb-1.5 whitespace-nowrap"
        ><input v-model="form.replaceWords" type="checkbox" />new words</label
      ><input
        v-if="form.replaceWords"
        v-model="form.newWords"
        class="field min-w-0 flex-1"
        placeholder="empty deletes"
        aria-label="New words"
      />
    </div>
    <div class="mt-2 flex items-end gap-2 text-[13px] text-soft">
      <FamilyPicker v-model="form.newFamily" :choices="newFamilies" label="Set in" placeholder="leave it" /><label
        >Size
        <input
          v-model.number="form.newSize"
          type="number"
          step="0.1"
          class="field block w-[84px] text-ink"
          placeholder="leave it"
      /></label>
    </div>
    <div v-for="(each, index) in form.colors" :key="index" class="mt-2 flex items-center gap-2">
      <span class="inline-block size-[18px] border border-soft" :style="{ background: each.from }" />{{ each.from }}
      becomes
      <input v-model="each.to" class="field w-[92px]" maxlength="7" :aria-label="`What ${each.from} becomes`" /><button
        type="button"
        class="link"
        @click="form.colors = form.colors.filter((_, at) => at !== index)"
      >
        Leave it
      </button>
    </div>
    <p class="mt-3 border-l-2 border-verdigris pl-3" aria-live="polite">
      {{ across.recastWish.success ? recastSentence(across.recastWish.data) : 'This wish cannot be read yet.' }}
    </p>
    <p class="mt-3">
      <button
        type="button"
        class="act"
        :disabled="!across.recastWish.success || across.selected.length === 0 || across.busy"
        @click="across.beginRecast()"
      >
        Plan it for {{ counted(across.selected.length, 'document') }}
      </button>
    </p>
  </template>
  <template v-if="across.kept.length > 0">
    <h2 class="mt-6">Kept wishes</h2>
    <ul>
      <li v-for="wish in across.kept" :key="wish.id" class="flex items-baseline gap-3 border-b border-rule py-1">
        <span class="min-w-0 flex-1 truncate">{{ wish.name }}</span><button
          type="button"
          class="link"
          :disabled="across.selected.length === 0 || across.busy"
          @click="across.begin(wish.data)"
        >
          Plan it
        </button>
      </li>
    </ul>
  </template>
  <template v-if="across.batches.length > 0">
    <h2 class="mt-6">Plans over documents</h2>
    <ul>
      <li v-for="each in across.batches" :key="each.id" class="border-b border-rule py-1.5">
        <button type="button" class="link" @click="across.watchBatch(each.id)">{{ each.title }}</button><span
          class="block text-[13px] text-soft"
          >{{ states[each.state] }}; {{ each.done }} of {{ counted(each.count, 'document') }};
          {{
            new Date(each.created).toLocaleString('en-GB', {
              day: 'numeric',
              month: 'short',
              hour: '2-digit',
              minute: '2-digit',
            })
          }}{{ me.isShared ? `, ${me.nameOf(each.author) || 'somebody'}` : '' }}</span
        >
      </li>
    </ul>
  </template>
</template>
