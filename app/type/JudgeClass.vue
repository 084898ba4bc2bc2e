<script setup lang="ts">
import type { CatalogueEntry } from '~~/core/font/catalogue'
import { sameFamily } from '~~/core/document/font-family'
import { typeClasses, type TypeClass } from '~~/core/font/classify'
import { kindsOf } from '~~/core/font/judgement'
import Choice from '../kit/Choice.vue'
import { useJudgements } from '../stores/kept'

/** A class is a judgement: where it is wrong, somebody says what the family is, or goes back to what was measured. */
const props = defineProps<{ entry: CatalogueEntry }>()
const judgements = useJudgements()
const own = computed(() => judgements.list.find(({ data }) => sameFamily(data.family, props.entry.family)) ?? null)
const open = ref(false)
const chosen = ref<TypeClass>(props.entry.classed.class)
const kind = ref<string>(props.entry.classed.kind)
watch(
  () => props.entry.family,
  () => {
    open.value = false
  },
)
function begin(): void {
  chosen.value = props.entry.classed.class
  kind.value = props.entry.classed.kind
  open.value = true
}
function turnTo(to: TypeClass): void {
  chosen.value = to
  kind.value = kindsOf(to)[0]!
}
async function say(): Promise<void> {
  const { family } = props.entry
  if (await judgements.keep(family.slice(0, 200), { family, class: chosen.value, kind: kind.value })) open.value = false
}
</script>

<template>
  <span class="inline-flex flex-wrap items-center gap-x-3 gap-y-1 text-[13px]">
    <button v-if="!open" type="button" class="link" @click="begin">Judge it by hand</button>
    <button v-if="!open && own" type="button" class="link" @click="judgements.drop(own.id)">As it was measured</button>
    <template v-if="open">
      <Choice :model-value="chosen" aria-label="Class" @update:model-value="turnTo">
        <option v-for="each in typeClasses" :key="each" :value="each">{{ each }}</option>
      </Choice>
      <Choice v-model="kind" aria-label="Kind">
        <option v-for="each in kindsOf(chosen)" :key="each" :value="each">{{ each }}</option>
      </Choice>
      <button type="button" class="plain" @click="say">So it is</button>
      <button type="button" class="link" @click="open = false">Leave it</button>
    </template>
    <span v-if="judgements.message" role="alert" class="text-rubric">{{ judgements.message }}</span>
  </span>
</template>
