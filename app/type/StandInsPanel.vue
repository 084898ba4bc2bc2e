<script setup lang="ts">
import type { StandIn } from '~~/core/font/library'
import type { SetStandInLevel, StandInLevels } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import Term from '../kit/Term.vue'
import StandInForm from './StandInForm.vue'
import { scriptWords } from './face-words'

/** Stand-ins for whatever is absent, by script: for the document, its folder, its house and the desk. */
const props = defineProps<{
  standIns: StandInLevels
  /** Families that the document names and the library lacks. */
  absent: readonly string[]
  inFolder: boolean
  busy: boolean
  says: string
  /** Sets a stand-in, or with null takes it away; whether that was done. */
  set: (level: SetStandInLevel, family: string, script: StandIn['script'], to: string | null) => Promise<boolean>
}>()
const level = ref<'document' | 'folder' | 'desk'>('desk')
const levels = computed(() =>
  (['document', 'folder', 'house', 'desk'] as const).flatMap(each =>
    props.standIns[each].map(standIn => ({ level: each, standIn })),
  ),
)
const levelWords = { document: 'this document', folder: 'its folder', house: 'its house', desk: 'the desk' } as const
const add = ({ family, script, to }: StandIn) => props.set(level.value, family, script, to)
</script>

<template>
  <section aria-label="Stand-ins by script">
    <h2><Term word="standIn">Stand-ins</Term></h2>
    <p class="text-soft">
      {{ says }} The document’s choice goes before the folder’s, that before its house’s, and that before the desk’s; a
      family’s before that for all.
    </p>
    <table v-if="levels.length > 0" class="mt-1">
      <thead>
        <tr>
          <th scope="col">For</th>
          <th scope="col">Absent</th>
          <th scope="col">In</th>
          <th scope="col">Stands in</th>
          <th scope="col"><span class="sr-only">Take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in levels" :key="`${each.level}${each.standIn.family}${each.standIn.script}`">
          <td>{{ levelWords[each.level] }}</td>
          <td>{{ each.standIn.family || 'any family' }}</td>
          <td>{{ scriptWords(each.standIn.script) }}</td>
          <td>{{ each.standIn.to }}</td>
          <td>
            <NuxtLink v-if="each.level === 'house'" class="link" to="/houses">Houses</NuxtLink>
            <button
              v-else
              type="button"
              class="link"
              :aria-label="`Take away ${each.standIn.to} for ${each.standIn.family || 'any family'}`"
              @click="set(each.level, each.standIn.family, each.standIn.script, null)"
            >
              Take away
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <StandInForm :absent="absent" :busy="busy" :add="add">
      <label
        >For
        <Choice v-model="level" class="flex text-ink">
          <option value="document">this document</option>
          <option value="folder" :disabled="!inFolder">its folder</option>
          <option value="desk">the desk</option>
        </Choice></label
      >
    </StandInForm>
  </section>
</template>
