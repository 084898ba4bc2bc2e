<script setup lang="ts">
import type { FaceTried } from '~~/core/change/set-type/try-face'
import type { SetTypeWish } from '~~/core/change/set-type/wish'
import { grouped } from '../../desk/words'
import Term from '../../kit/Term.vue'
import { sentenceOf, useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import { useType } from '../../stores/type'

/** What the document would come to in each face of the shortlist: pages, lines, letters in a line, what runs over. */
const props = defineProps<{ wishFor: (family: string) => SetTypeWish | null; asked: string }>()
const chosen = defineModel<string | null>({ required: true })
const desk = useDesk()
const type = useType()
const library = useLibrary()
const tried = shallowRef<ReadonlyMap<string, FaceTried | string>>(new Map())
let round = 0

/** One after the other, so that what is asked of the document meanwhile is answered. */
async function tryAll(): Promise<void> {
  const own = ++round
  tried.value = new Map()
  for (const { family } of type.compared) {
    const wish = props.wishFor(family)
    const { engine } = desk
    if (own !== round || !wish || !engine || desk.state !== 'open') return
    const found = await engine
      .ask('tryFace', { wish: JSON.parse(JSON.stringify(wish)) as SetTypeWish })
      .catch((error: unknown) => sentenceOf(error))
    if (own === round) tried.value = new Map(tried.value).set(family, found)
  }
}
watch([() => props.asked, () => type.shortlist.join()], tryAll, { immediate: true })
onBeforeUnmount(() => {
  round++
})
const now = computed(() => desk.census?.document.pages ?? 0)
const rows = computed(() =>
  type.compared.map(entry => {
    const found = tried.value.get(entry.family)
    return {
      entry,
      failure: typeof found === 'string' ? found : '',
      found: typeof found === 'string' ? null : (found ?? null),
    }
  }),
)
const more = (pages: number) =>
  pages === now.value ? '' : ` (${pages > now.value ? '+' : '−'}${Math.abs(pages - now.value)})`
</script>

<template>
  <section class="pb-6" aria-label="The document in the faces of the shortlist">
    <p v-if="rows.length === 0" class="text-soft">
      Put families on the <Term word="shortlist">shortlist</Term> with Space in the list: what the document comes to in
      each stands here.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">In its own words</th>
          <th scope="col" class="number">Pages</th>
          <th scope="col" class="number">Lines</th>
          <th scope="col" class="number">Letters in a line</th>
          <th scope="col" class="number">Lines over</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="{ entry, found, failure } in rows"
          :key="entry.family"
          :class="{ 'bg-wash': chosen === entry.family }"
        >
          <td class="max-w-[240px] overflow-hidden">
            <button
              type="button"
              class="block w-full overflow-hidden text-left whitespace-nowrap"
              :aria-pressed="chosen === entry.family"
              @click="chosen = entry.family"
            >
              <span class="block text-[19px]" :style="{ fontFamily: library.cssFamily(entry.plain.hash) }">{{
                type.shown
              }}</span><span class="text-[13px] text-soft">{{ entry.family }}</span>
            </button>
          </td>
          <template v-if="found">
            <td class="number">{{ grouped(found.pages) }}{{ more(found.pages) }}</td>
            <td class="number">{{ grouped(found.lines) }}</td>
            <td class="number">{{ found.lettersInLine ?? '–' }}</td>
            <td class="number" :class="{ 'text-rubric': found.overset > 0 }">{{ found.overset || '–' }}</td>
          </template>
          <td v-else colspan="4" class="text-soft">{{ failure || 'Setting the pages …' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
