<script setup lang="ts">
import { compareHouses } from '~~/core/house/compare'
import type { House } from '~~/core/house/house'
import Choice from '../kit/Choice.vue'
import { useHouses } from '../stores/houses'

/** The house that is looked at, held against another. */
const houses = useHouses()
const against = ref('')
const other = shallowRef<House | null>(null)
const others = computed(() => houses.list.filter(each => each.id !== houses.info?.id))
const differences = computed(() =>
  houses.draft && other.value ? compareHouses(houses.draft as House, other.value) : [],
)
watch([against, () => houses.info?.id], async ([id]) => {
  other.value = id === '' || id === houses.info?.id ? null : await houses.workingOf(id)
})
</script>

<template>
  <section aria-label="This house and another">
    <label class="flex flex-wrap items-center gap-2"
      ><span class="text-soft">Hold it against</span>
      <Choice v-model="against" aria-label="Hold it against">
        <option value="">no other</option>
        <option v-for="each in others" :key="each.id" :value="each.id">{{ each.name }}</option>
      </Choice></label
    >
    <p v-if="others.length === 0" class="mt-2 text-soft">There is no other house yet.</p>
    <p v-else-if="other && differences.length === 0" class="mt-3">They say the same.</p>
    <table v-else-if="other" class="mt-3 table-fixed" aria-label="In what they differ">
      <thead>
        <tr>
          <th scope="col" class="w-[26%]">What</th>
          <th scope="col">{{ houses.draft?.name }}</th>
          <th scope="col">{{ other.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in differences" :key="`${each.kind} ${each.what}`" class="align-top">
          <td class="text-soft">{{ each.what }}</td>
          <td v-for="(says, at) in [each.one, each.other]" :key="at">
            <span v-if="says === null" class="text-soft">is not in it</span>
            <template v-else>
              <span
                v-if="each.kind === 'colour'"
                class="mr-1.5 inline-block h-3 w-3 border border-rule align-baseline"
                :style="{ background: says }"
              />{{ says }}
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
