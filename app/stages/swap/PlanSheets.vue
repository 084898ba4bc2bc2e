<script setup lang="ts">
import { faceKey } from '~~/core/census/voices'
import type { Slot } from '~~/core/document/font-attributes'
import SheetPage from '../../desk/SheetPage.vue'
import { counted, pageWords } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useSwap } from '../../stores/swap'

const desk = useDesk()
const swap = useSwap()
const plan = computed(() => swap.plan!)
const effects = computed(() => plan.value.effects!)
const at = ref(0)
const holder = ref<HTMLElement | null>(null)
const room = ref({ width: 600, height: 400 })
let watcher: ResizeObserver | null = null

interface Row { readonly page: number, readonly pageAfter: number, readonly what: string, readonly tone: string, readonly lines: string, readonly key: string }

/** What happens, page by page: overruns first, then paragraphs that change their lines. */
const rows = computed((): Row[] => [
  ...effects.value.overset.map((frame): Row => ({ key: `o${frame.node}`, page: frame.page, pageAfter: frame.page, tone: 'text-rubric', what: `${frame.name || 'A frame'} runs over${frame.linesBefore > 0 ? `, as by ${frame.linesBefore} before` : ''}`, lines: `${counted(frame.lines, 'line')} over` })),
  ...[...effects.value.paragraphs].sort((a, b) => a.page - b.page).map((each): Row => ({
    key: `p${each.part}${each.node}`, page: each.page, pageAfter: each.pageAfter, tone: each.linesAfter > each.linesBefore ? 'text-ochre' : '', what: `“${each.opening.trim()}${each.opening.length >= 60 ? ' …' : ''}”`, lines: `${each.linesBefore} → ${each.linesAfter}`,
  })),
])
const last = computed(() => Math.max(desk.sheets.length, swap.sheetsAfter.length) - 1)
/** Where what stood on this page before stands afterwards: by the paragraphs that changed, else the same page. */
const afterPage = computed(() => Math.min(rows.value.find(row => row.page === at.value)?.pageAfter ?? at.value, swap.sheetsAfter.length - 1))
const before = computed(() => desk.sheets[at.value])
const after = computed(() => swap.sheetsAfter[afterPage.value])
const zoom = computed(() => {
  const sheet = before.value ?? after.value
  if (!sheet) return 0.4
  return Math.max(0.2, Math.min((room.value.width - 72) / 2 / (sheet.width * 96 / 72), Math.max(room.value.height - 300, 300) / (sheet.height * 96 / 72)))
})
/** Faces that go, on the page now, and those that come, on the page after: both are marked. */
const goes = computed(() => new Set(plan.value.mappings.map(mapping => mapping.key)))
const comes = computed(() => new Set(plan.value.mappings.map(mapping => faceKey({ ...mapping.to, slot: mapping.key.split('|')[2] as Slot }))))
const touched = computed(() => (desk.census?.faces ?? []).filter(face => goes.value.has(face.key)).flatMap(face => face.pages))
const flagged = computed(() => [...new Set([...rows.value.map(row => row.page), ...touched.value])].sort((a, b) => a - b))

function nextFlagged(): void {
  const next = flagged.value.find(page => page > at.value) ?? flagged.value[0]
  if (next !== undefined) at.value = next
}

watch(() => swap.generation, () => { if (!flagged.value.includes(at.value)) at.value = rows.value[0]?.page ?? flagged.value[0] ?? Math.min(desk.page, last.value) }, { immediate: true })
onMounted(() => {
  watcher = new ResizeObserver(([entry]) => { if (entry) room.value = { width: entry.contentRect.width, height: entry.contentRect.height } })
  watcher.observe(holder.value!)
})
onBeforeUnmount(() => watcher?.disconnect())
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col bg-desk">
    <div ref="holder" class="min-h-0 flex-1 overflow-auto px-6 pt-4 pb-6" tabindex="0" aria-label="Pages before and after">
      <div class="flex gap-6">
        <div v-if="before">
          <p class="mb-1 text-[13px] font-medium text-soft">Page {{ at + 1 }} now</p>
          <SheetPage side="now" :index="at" :zoom="zoom" v-bind="before" :live="true" :generation="desk.generation" :faces="goes" plain />
        </div>
        <div v-if="after">
          <p class="mb-1 text-[13px] font-medium text-soft">Page {{ afterPage + 1 }} after</p>
          <SheetPage side="after" :index="afterPage" :zoom="zoom" v-bind="after" :live="true" :generation="swap.generation" :faces="comes" plain />
        </div>
      </div>
      <p v-if="touched.length > 0" class="mt-4 text-[13px] text-soft">Swapped text stands on page{{ new Set(touched).size === 1 ? '' : 's' }} {{ pageWords([...new Set(touched)].sort((a, b) => a - b), desk.sheets.length) }}.</p>
      <table class="mt-3 table-fixed">
        <colgroup><col class="w-[56px]"><col><col class="w-[104px]"></colgroup>
        <thead><tr><th scope="col">Page</th><th scope="col">What happens</th><th scope="col" class="number">Lines</th></tr></thead>
        <tbody>
          <tr v-for="row in rows.slice(0, 200)" :key="row.key" :class="{ 'bg-paper': row.page === at }">
            <td><button type="button" class="link" :aria-label="`Show page ${row.page + 1}`" @click="at = row.page">{{ row.page + 1 }}</button></td>
            <td class="truncate" :class="row.tone" :title="row.what">{{ row.what }}</td>
            <td class="number">{{ row.lines }}</td>
          </tr>
          <tr v-if="rows.length === 0"><td colspan="3" class="text-soft">Every paragraph keeps its number of lines.</td></tr>
        </tbody>
      </table>
      <p v-if="effects.paragraphsChanged > rows.length || rows.length > 200" class="mt-2 text-soft">{{ counted(effects.paragraphsChanged, 'paragraph') }} change in all; the largest changes are listed.</p>
    </div>
    <div class="flex h-[36px] shrink-0 items-center gap-4 border-t border-rule bg-paper px-5 text-[13px] text-soft">
      <button type="button" class="link" :disabled="at <= 0" @click="at--">Page before</button>
      <span class="tabular-nums">Page <strong class="text-ink">{{ at + 1 }}</strong> of {{ last + 1 }}</span>
      <button type="button" class="link" :disabled="at >= last" @click="at++">Page after</button>
      <button v-if="flagged.length > 0" type="button" class="link" @click="nextFlagged">Next page with a change</button>
      <span class="ml-auto">{{ effects.pagesBefore }} pages before, {{ effects.pagesAfter }} after</span>
    </div>
  </div>
</template>
