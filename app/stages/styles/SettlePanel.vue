<script setup lang="ts">
import type { TextScope } from '~~/core/change/scope'
import { meantGroups, propertyGroups, typeGroups, type GroupId } from '~~/core/style/groups'
import Choice from '../../kit/Choice.vue'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import Term from '../../kit/Term.vue'

const styles = useStyles()
const words = useWords()
const where = ref<'document' | 'story' | 'selection'>('document')
const which = ref<'all' | GroupId>('all')
const idleOnly = ref(false)
const formatting = ref(false)
const scope = computed((): TextScope | null => {
  if (where.value === 'document') return { kind: 'document' }
  if (where.value === 'selection') return styles.target?.scope ?? null
  return words.spot ? { kind: 'story', part: words.spot.part, node: words.spot.node } : null
})
const titles: Record<(typeof meantGroups)[number], string> = {
  posture: 'italics',
  weight: 'bold and other weights',
  position: 'raised and lowered',
  language: 'language',
  face: 'the face of code',
}

function propose(): void {
  if (!scope.value) return
  const groups: GroupId[] = which.value === 'all' ? [...typeGroups] : [which.value]
  if (formatting.value && which.value === 'all') groups.push('setting')
  void styles.propose([
    { type: 'settle', scope: scope.value, groups, keep: [...styles.keep], idleOnly: idleOnly.value },
  ])
}
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1"><Term word="settle">Settle</Term> local formatting</h1>
    <p class="text-soft">
      What was set by hand goes, and the styles show through. You see every place before anything changes.
    </p>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <fieldset class="mt-4">
      <legend class="font-medium">Where</legend>
      <label class="mt-1 flex items-center gap-2"
        ><input v-model="where" type="radio" value="document" /> the whole document, its notes, frames and
        masters</label
      >
      <label class="mt-1 flex items-center gap-2" :class="{ 'text-soft': !words.spot }"
        ><input v-model="where" type="radio" value="story" :disabled="!words.spot" /> the text with the caret</label
      >
      <label class="mt-1 flex items-center gap-2" :class="{ 'text-soft': !styles.target }"
        ><input v-model="where" type="radio" value="selection" :disabled="!styles.target" />
        {{ styles.target?.words ?? 'a selection' }}</label
      >
    </fieldset>
    <fieldset class="mt-4">
      <legend class="font-medium">What</legend>
      <label class="mt-1 flex items-center gap-2">
        <Choice v-model="which" aria-label="Which properties">
          <option value="all">everything about the type</option>
          <option
            v-for="group in propertyGroups.filter(each => each.id !== 'revision')"
            :key="group.id"
            :value="group.id"
          >
            {{ group.title }} only
          </option>
        </Choice>
      </label>
      <label v-if="which === 'all'" class="mt-2 flex items-center gap-2"
        ><input v-model="formatting" type="checkbox" /> alignment, indents and spacing of paragraphs too</label
      >
      <label class="mt-2 flex items-center gap-2"
        ><input v-model="idleOnly" type="checkbox" /> only what changes nothing: the text keeps its look</label
      >
    </fieldset>
    <fieldset v-if="!idleOnly" class="mt-4">
      <legend class="font-medium">Keep as character styles, where it is meant</legend>
      <div class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        <label v-for="group in meantGroups" :key="group" class="flex items-center gap-2"
          ><input v-model="styles.keep" type="checkbox" :value="group" /> {{ titles[group] }}</label
        >
      </div>
    </fieldset>
    <button type="button" class="act mt-5" :disabled="!scope || styles.busy" @click="propose">
      {{ styles.busy ? 'Planning …' : 'Show the plan' }}
    </button>
  </div>
</template>
