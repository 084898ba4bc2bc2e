<script setup lang="ts">
import { coveredScripts } from '~~/core/font/face'
import type { StandIn } from '~~/core/font/library'
import type { StandInLevels } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import { useLibrary } from '../stores/library'
import Term from '../kit/Term.vue'

/** Stand-ins for whatever is absent, by script: for the document, its folder, and the desk. */
const props = defineProps<{
  standIns: StandInLevels
  /** Families that the document names and the library lacks. */
  absent: readonly string[]
  inFolder: boolean
  busy: boolean
  says: string
  /** Sets a stand-in, or with null takes it away; whether that was done. */
  set: (level: keyof StandInLevels, family: string, script: StandIn['script'], to: string | null) => Promise<boolean>
}>()
const library = useLibrary()
const level = ref<'document' | 'folder' | 'desk'>('desk')
const script = ref<StandIn['script']>('western')
const family = ref('')
const to = ref('')
const scriptWords = (each: StandIn['script']) =>
  each === 'any'
    ? 'any script'
    : each === 'western'
      ? 'western scripts'
      : each === 'asian'
        ? 'East Asian scripts'
        : each === 'complex'
          ? 'complex scripts'
          : `${each} letters`
const levels = computed(() =>
  (['document', 'folder', 'desk'] as const).flatMap(each =>
    props.standIns[each].map(standIn => ({ level: each, standIn })),
  ),
)
const levelWords = { document: 'this document', folder: 'its folder', desk: 'the desk' } as const
async function add(): Promise<void> {
  if (to.value !== '' && (await props.set(level.value, family.value, script.value, to.value))) to.value = ''
}
</script>

<template>
  <section aria-label="Stand-ins by script">
    <h2><Term word="standIn">Stand-ins</Term></h2>
    <p class="text-soft">
      {{ says }} The document’s choice goes before the folder’s, and that before the desk’s; a family’s before that for
      all.
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
            <button
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
    <form class="mt-2 flex flex-wrap items-end gap-2 text-[13px] text-soft" @submit.prevent="add">
      <label
        >For
        <Choice v-model="level" class="flex text-ink">
          <option value="document">this document</option>
          <option value="folder" :disabled="!inFolder">its folder</option>
          <option value="desk">the desk</option>
        </Choice></label
      >
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
          <option
            v-for="each in ['any', 'western', 'asian', 'complex', ...coveredScripts] as const"
            :key="each"
            :value="each"
          >
            {{ scriptWords(each) }}
          </option>
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
  </section>
</template>
