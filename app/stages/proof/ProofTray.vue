<script setup lang="ts">
import { proofCsv, proofedFile } from '~~/core/proof/report'
import PlanPanel from '../../change/PlanPanel.vue'
import Chips from '../../kit/Chips.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import { saveFile } from '../../kit/save-file'
import { useReport } from '../../kit/use-report'
import Term from '../../kit/Term.vue'
import { counted, grouped } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useProof } from '../../stores/proof'
import { useRemarks } from '../../stores/remarks'
import CheckRow from './CheckRow.vue'
import ChecklistPanel from './ChecklistPanel.vue'
import ComparePanel from './ComparePanel.vue'
import FindingPanel from './FindingPanel.vue'
import RemarksPanel from './RemarksPanel.vue'

/** Everything that the checks found in the document: by how much it matters, walked, put right, accepted. */
const desk = useDesk()
const proof = useProof()
const remarks = useRemarks()
const route = useRoute()
const open = computed(() => (proof.counts ? Object.values(proof.counts).reduce((sum, each) => sum + each, 0) : 0))
const chips = computed(() => {
  const counts = proof.counts
  if (!counts) return []
  return [
    { id: 'all' as const, title: 'All', count: open.value },
    { id: 'error' as const, title: 'Errors', count: counts.error },
    { id: 'warning' as const, title: 'Warnings', count: counts.warning },
    { id: 'note' as const, title: 'Notes', count: counts.note },
    ...(proof.accepted.length > 0
      ? [{ id: 'accepted' as const, title: 'Accepted', count: proof.accepted.length }]
      : []),
  ]
})
const pdf = useReport()
const name = computed(() => desk.info!.document.fileName.replace(/\.\w+$/, ''))
const reportPdf = () => pdf.make('proof-pdf')
function report(): void {
  const { fileName } = desk.info!.document
  const pageNumbers = desk.sheets.map((_, at) => String(at + 1))
  const csv = proofCsv([proofedFile(fileName, proof.proof!, pageNumbers)])
  saveFile(new Blob([csv], { type: 'text/csv' }), `${name.value}, proof.csv`)
}
onMounted(() => {
  // Whoever comes from a remark that is given to them comes to the remarks.
  if (route.query.panel === 'remarks') proof.panel = 'remarks'
  if (desk.info) void remarks.load(desk.info.document.id)
  void proof.begin()
})
// What is typed is looked over when it rests, as it is counted then.
watch(
  () => [desk.state, desk.generation, desk.census] as const,
  () => {
    if (desk.state === 'open' && !desk.after) void proof.look()
  },
)
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <PlanPanel
      v-if="proof.change.plan"
      id="proof"
      @apply="proof.apply()"
      @leave="proof.change.reset()"
      @toggle="async key => (await proof.change.toggle(key)) && proof.change.show()"
    />
    <ComparePanel v-else-if="proof.panel === 'compare'" />
    <ChecklistPanel v-else-if="proof.panel === 'checklist'" />
    <RemarksPanel v-else-if="proof.panel === 'remarks'" />
    <template v-else>
      <h1 v-if="proof.proof">{{ open === 0 ? 'Nothing found' : counted(open, 'finding') }}</h1>
      <h1 v-else>Proof</h1>
      <p class="text-soft">
        <template v-if="!proof.proof">{{
          proof.state === 'failed' ? 'It could not be looked over.' : 'Looking the document over …'
        }}</template><template v-else
          >Every <Term word="finding">finding</Term> of the <Term word="checklist">checklist</Term
          >{{
            proof.house
              ? proof.house.checks
                ? ` of the house ${proof.house.name}`
                : `, and of the house ${proof.house.name}`
              : ''
          }}. N goes to the next one.</template
        >
      </p>
      <NoticeLine v-if="proof.done" kind="done">{{ proof.done }}.</NoticeLine>
      <NoticeLine v-if="proof.message" kind="failed">{{ proof.message }}</NoticeLine>
      <NoticeLine v-if="pdf.failed.value" kind="failed">{{ pdf.failed.value }}</NoticeLine>
      <div v-if="proof.proof" class="mt-2 flex flex-wrap gap-2">
        <button
          v-if="proof.mendable.length > 0"
          type="button"
          class="act"
          :disabled="proof.change.busy !== ''"
          @click="proof.plan(proof.mendable)"
        >
          {{
            proof.change.busy === 'planning'
              ? 'Planning …'
              : `Put ${grouped(proof.mendable.length)} ${proof.mendable.length === 1 ? 'finding' : 'findings'} right`
          }}
        </button>
        <button type="button" class="plain" @click="proof.panel = 'checklist'">Checklist</button>
        <button type="button" class="plain" :disabled="pdf.busy.value" @click="reportPdf">
          {{ pdf.busy.value ? 'Writing …' : 'Report as PDF' }}
        </button>
        <button type="button" class="plain" @click="report">Report as CSV</button>
        <button type="button" class="plain" @click="proof.panel = 'compare'">Compare</button>
        <button type="button" class="plain" @click="proof.panel = 'remarks'">
          Remarks{{ remarks.open.length > 0 ? ` (${remarks.open.length})` : '' }}
        </button>
      </div>
      <Chips
        v-if="chips.length > 0"
        v-model="proof.severity"
        class="mt-3"
        label="Which findings are shown"
        :options="chips"
      />
      <FindingPanel v-if="proof.current" />
      <ul v-if="proof.proof" class="mt-2 border-t border-rule" aria-label="What the checks found">
        <CheckRow v-for="row in proof.rows" :key="row.check" :row="row" />
      </ul>
      <p v-if="proof.proof && proof.rows.length === 0" class="mt-3 text-soft">
        {{
          open === 0
            ? 'None of the checks found anything. What they cannot see stands in the checklist.'
            : 'No finding of this sort.'
        }}
      </p>
    </template>
  </div>
</template>
