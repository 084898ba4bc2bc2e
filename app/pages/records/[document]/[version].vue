<script setup lang="ts">
import type { DocumentInfo, RecordedPlan } from '~~/shared/api'
import RunningHead from '../../../desk/RunningHead.vue'
import ShelfIndex from '../../../desk/ShelfIndex.vue'
import { counted } from '../../../desk/words'
import PlanLeft from '../../../kit/PlanLeft.vue'
import PlanRows from '../../../kit/PlanRows.vue'
import { sentenceOf } from '../../../stores/desk'

/** The kept evidence of one change: what was wished, where, and the pages before and after. */
const route = useRoute()
const id = String(route.params.document)
const number = Number(route.params.version)
const plan = shallowRef<RecordedPlan | null>(null)
const info = shallowRef<DocumentInfo | null>(null)
const failure = ref('')
const version = computed(() => info.value?.versions.find(each => each.number === number) ?? null)
const pages = computed(() => {
  const effects = plan.value?.effects
  if (!effects) return [0]
  const list = [
    ...new Set([
      ...effects.overset.map(frame => frame.page),
      ...effects.paragraphs.map(each => each.page),
      ...plan.value!.rows.map(row => row.page ?? -1),
    ]),
  ]
    .filter(page => page >= 0)
    .sort((a, b) => a - b)
  return list.length > 0 ? list : [0]
})
/** A record is read, not changed: nothing of it can be ticked. */
const settledRows = computed(() => (plan.value?.rows ?? []).map(row => ({ ...row, optional: false })))
const at = ref(0)
const page = computed(() => pages.value[Math.min(at.value, pages.value.length - 1)] ?? 0)
const pageAfter = computed(() =>
  Math.min(
    plan.value?.effects?.paragraphs.find(each => each.page === page.value)?.pageAfter ?? page.value,
    Math.max((plan.value?.effects?.pagesAfter ?? 1) - 1, 0),
  ),
)
const picture = (of: number, index: number) => `/api/documents/${id}/page-picture?version=${of}&page=${index}`
onMounted(async () => {
  try {
    ;[plan.value, info.value] = await Promise.all([
      $fetch<RecordedPlan>(`/api/documents/${id}/record?version=${number}`),
      $fetch<DocumentInfo>(`/api/documents/${id}`),
    ])
  } catch (error) {
    failure.value = sentenceOf(error)
  }
})
useHead({ title: () => `Record of ${info.value?.document.fileName ?? 'a change'}, Morphene` })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead :title="info ? `Record of ${info.document.fileName}` : 'Record'" />
    <div class="flex min-h-0 flex-1">
      <main class="min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-10 py-7">
        <p v-if="failure" role="alert" class="text-rubric">{{ failure }}</p>
        <template v-if="plan && info && version">
          <h1>{{ plan.title }}</h1>
          <p class="text-soft">
            <NuxtLink :to="`/documents/${id}`" class="link">{{ info.document.fileName }}</NuxtLink>, version
            {{ number }},
            {{ new Date(version.created).toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' }) }}.
            {{ counted(plan.places, 'place')
            }}{{ plan.characters > 0 ? `, ${counted(plan.characters, 'character')}` : ''
            }}<template v-if="plan.effects"
              >; {{ plan.effects.pagesBefore }} pages before, {{ plan.effects.pagesAfter }} after</template
            >.
          </p>
          <p v-for="sentence in plan.sentences" :key="sentence" class="mt-1">{{ sentence }}</p>
          <p class="mt-2 flex gap-3">
            <a class="plain" :href="`/api/documents/${id}/record-pdf?version=${number}`">Download as PDF</a
            ><a class="plain" :href="`/api/documents/${id}/record-csv?version=${number}`">Download as CSV</a>
          </p>
          <div class="mt-4 flex items-start gap-6">
            <figure v-for="side in ['before', 'after'] as const" :key="side" class="min-w-0 flex-1">
              <figcaption class="mb-1 text-[13px] text-soft">
                Page {{ (side === 'before' ? page : pageAfter) + 1 }} {{ side }}
              </figcaption>
              <img
                :src="side === 'before' ? picture(number - 1, page) : picture(number, pageAfter)"
                :alt="`Page ${page + 1} ${side} the change`"
                class="max-h-[52vh] max-w-full bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]"
              />
            </figure>
          </div>
          <p class="mt-2 flex items-center gap-3 text-[13px] text-soft">
            <button type="button" class="link" :disabled="at <= 0" @click="at--">Page before</button>{{ at + 1 }} of
            {{ counted(pages.length, 'page') }} with a change<button
              type="button"
              class="link"
              :disabled="at >= pages.length - 1"
              @click="at++"
            >
              Next page
            </button>
          </p>
          <h2 class="mt-5">Places</h2>
          <PlanRows :rows="settledRows" nothing="No rows were kept." />
          <PlanLeft :plan="plan" />
        </template>
      </main>
      <ShelfIndex open="records" />
    </div>
  </div>
</template>
