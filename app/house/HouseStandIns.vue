<script setup lang="ts">
import type { House } from '~~/core/house/house'
import type { StandIn } from '~~/core/font/library'
import type { ShelfCensus } from '~~/shared/api'
import Term from '../kit/Term.vue'
import { sentenceOf } from '../stores/desk'
import { useLibrary } from '../stores/library'
import StandInForm from '../type/StandInForm.vue'
import { scriptWords } from '../type/face-words'

/** Who stands in for what is absent in the documents of a house. */
const props = defineProps<{ standIns: House['standIns'] }>()
const emit = defineEmits<{ change: [standIns: House['standIns']] }>()
const library = useLibrary()
/** Families that documents on the shelf name and the library lacks. */
const absent = shallowRef<readonly string[]>([])
const message = ref('')
onMounted(async () => {
  try {
    const [census] = await Promise.all([$fetch<ShelfCensus>('/api/census'), library.load()])
    absent.value = census.families.map(each => each.value).filter(each => library.library?.family(each).length === 0)
  } catch (error) {
    message.value = sentenceOf(error)
  }
})
const same = (one: StandIn, other: StandIn) => one.family === other.family && one.script === other.script
function add(standIn: StandIn): boolean {
  emit('change', [...props.standIns.filter(each => !same(each, standIn)), standIn])
  return true
}
</script>

<template>
  <section aria-label="Stand-ins of the house">
    <p class="text-soft">
      <Term word="standIn">Stand-ins</Term> for whatever is absent in documents of this house, once a version with them
      is issued. What a document or its folder chooses goes before them, what the desk chooses behind. No file is
      changed.
    </p>
    <p v-if="message" role="alert" class="text-rubric">{{ message }}</p>
    <table v-if="standIns.length > 0" class="mt-2">
      <thead>
        <tr>
          <th scope="col">Absent</th>
          <th scope="col">In</th>
          <th scope="col">Stands in</th>
          <th scope="col"><span class="sr-only">Take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in standIns" :key="`${each.family}|${each.script}`">
          <td>{{ each.family || 'any family' }}</td>
          <td>{{ scriptWords(each.script) }}</td>
          <td>{{ each.to }}</td>
          <td>
            <button
              type="button"
              class="link"
              :aria-label="`Take away ${each.to} for ${each.family || 'any family'}`"
              @click="
                emit(
                  'change',
                  standIns.filter(other => other !== each),
                )
              "
            >
              Take away
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <StandInForm :absent="absent" :busy="false" :add="add" />
  </section>
</template>
