<script setup lang="ts">
import type { CatalogueEntry } from '~~/core/font/catalogue'
import { sameFamily } from '~~/core/document/font-family'
import { isOver, licenceWords } from '~~/core/font/held-licence'
import { licenceUses, type LicenceUse } from '~~/core/font/licence'
import { useKeptLicences } from '../stores/kept'
import NoticeLine from '../kit/NoticeLine.vue'
import Tick from '../kit/Tick.vue'

/** Licences that are held for a family, with uses, seats, until when and by whom; one is added or let go. */
const props = defineProps<{ entry: CatalogueEntry }>()
const licences = useKeptLicences()
const today = new Date().toISOString().slice(0, 10)
const own = computed(() =>
  licences.list.filter(({ data }) => data.families.some(name => sameFamily(name, props.entry.family))),
)
const adding = ref(false)
const empty = () => ({
  name: '',
  uses: ['print', 'PDF'] as LicenceUse[],
  seats: '' as number | '',
  until: '',
  holder: '',
  also: '',
})
const form = ref(empty())
watch(
  () => props.entry.family,
  () => {
    adding.value = false
    form.value = empty()
  },
)
const toggle = (use: LicenceUse) => {
  const { uses } = form.value
  form.value.uses = uses.includes(use) ? uses.filter(each => each !== use) : [...uses, use]
}
const ready = computed(() => form.value.name.trim() !== '' && form.value.uses.length > 0)
async function keep(): Promise<void> {
  const { name, uses, seats, until, holder, also } = form.value
  const others = also.split(',').flatMap(each => each.trim() || [])
  const kept = await licences.keep(name.trim(), {
    families: [props.entry.family, ...others],
    uses,
    seats: seats === '' ? null : seats,
    until: until === '' ? null : until,
    holder: holder.trim(),
  })
  if (!kept) return
  adding.value = false
  form.value = empty()
}
</script>

<template>
  <div>
    <NoticeLine v-if="entry.licence.ended" kind="failed"
      >Its licence ended on {{ entry.licence.ended }}. It is not offered for choosing any more; documents that have it
      keep it.</NoticeLine
    >
    <NoticeLine v-if="licences.message" kind="failed">{{ licences.message }}</NoticeLine>
    <ul v-if="own.length > 0" class="mt-1">
      <li v-for="each in own" :key="each.id" class="flex items-baseline gap-3 border-b border-rule py-[3px]">
        <span class="flex-1" :class="{ 'text-rubric': isOver(each.data, today) }"
          >{{ licenceWords({ name: each.name, ...each.data }) }}: {{ each.data.uses.join(', ')
          }}{{ isOver(each.data, today) ? '; it is over' : '' }}</span
        ><button
          type="button"
          class="link"
          :aria-label="`Let go of the licence ${each.name}`"
          @click="licences.drop(each.id)"
        >
          Let go
        </button>
      </li>
    </ul>
    <button v-if="!adding" type="button" class="link mt-1" @click="adding = true">Add a licence that is held</button>
    <form v-else class="mt-2 grid grid-cols-2 gap-x-4 gap-y-2 border border-rule bg-sheet p-3" @submit.prevent="keep">
      <label class="text-[13px] text-soft"
        >Its name<input v-model="form.name" class="field block w-full text-ink" maxlength="200" required
      /></label>
      <label class="text-[13px] text-soft"
        >Held by<input v-model="form.holder" class="field block w-full text-ink" maxlength="200"
      /></label>
      <label class="text-[13px] text-soft"
        >Seats<input v-model.number="form.seats" type="number" min="1" class="field block w-full text-ink"
      /></label>
      <label class="text-[13px] text-soft"
        >Until<input v-model="form.until" type="date" class="field block w-full text-ink"
      /></label>
      <label class="col-span-2 text-[13px] text-soft"
        >Other families it is for, with commas between<input
          v-model="form.also"
          class="field block w-full text-ink"
          maxlength="2000"
      /></label>
      <fieldset class="col-span-2 flex flex-wrap gap-x-4 gap-y-1">
        <legend class="text-[13px] text-soft">It allows</legend>
        <label v-for="use in licenceUses" :key="use" class="flex items-center gap-1.5"
          ><Tick :checked="form.uses.includes(use)" @change="toggle(use)" /> {{ use }}</label
        >
      </fieldset>
      <span class="col-span-2 flex gap-3"
        ><button type="submit" class="act" :disabled="!ready">Keep this licence</button
        ><button type="button" class="plain" @click="adding = false">Leave it</button></span
      >
    </form>
  </div>
</template>
