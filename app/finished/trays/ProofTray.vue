<script setup lang="ts">
import { finishedChecks } from '~~/core/format/finished/checks'
import type { FinishedFinding } from '~~/core/format/finished/proof'
import { finishedProofed } from '~~/core/format/finished/report'
import { proofCsv } from '~~/core/proof/report'
import type { HouseInfo } from '~~/shared/api'
import { counted, grouped } from '../../desk/words'
import { saveFile } from '../../kit/save-file'
import { useAnswer } from '../../kit/use-answer'
import NoticeLine from '../../kit/NoticeLine.vue'
import Term from '../../kit/Term.vue'
import PageRemarks from '../../remarks/PageRemarks.vue'
import { useFinished } from '../../stores/finished'
import SeverityMark from '../../stages/proof/SeverityMark.vue'
import ChangeFoot from './ChangeFoot.vue'

/** What checks find on the pages: walked, and put right where words alone are wrong. */
const finished = useFinished()
const opened = ref<string | null>(null)
const rank = { error: 0, warning: 1, note: 2 } as const
const rows = computed(() => {
  const byCheck = new Map<string, FinishedFinding[]>()
  for (const finding of finished.findings ?? [])
    byCheck.set(finding.check, [...(byCheck.get(finding.check) ?? []), finding])
  return [...byCheck.values()].sort((a, b) => rank[a[0]!.severity] - rank[b[0]!.severity])
})
const about = (check: string) => finishedChecks.find(each => each.description.id === check)?.description
const mendable = computed(() => (finished.findings ?? []).flatMap(each => each.repair ?? []))
const repairsOf = (findings: readonly FinishedFinding[]) => findings.flatMap(each => each.repair ?? [])
const pagesOf = (findings: readonly FinishedFinding[]) => {
  const pages = [...new Set(findings.flatMap(each => each.place?.page ?? []))]
  return pages.length === 0 ? '' : pages.length > 4 ? `${pages[0]}–${pages.at(-1)}` : pages.join(', ')
}
function toggle(findings: readonly FinishedFinding[]): void {
  const { check } = findings[0]!
  opened.value = opened.value === check ? null : check
  if (opened.value) finished.walkThrough(findings.flatMap(each => each.place ?? []))
}
function walkTo(findings: readonly FinishedFinding[], finding: FinishedFinding): void {
  const placed = findings.filter(each => each.place)
  finished.walkThrough(placed.flatMap(each => each.place ?? []))
  finished.go(placed.indexOf(finding))
}
async function fetchHouse(): Promise<void> {
  const id = finished.info?.document.house ?? null
  const info = id === null ? null : await $fetch<HouseInfo>(`/api/houses/${id}`)
  finished.house = info && info.issued > 0 ? await $fetch(`/api/houses/${info.id}/versions/${info.issued}`) : null
}
async function begin(): Promise<void> {
  await fetchHouse().catch(() => null)
  await finished.proof()
}
onMounted(begin)
watch(
  () => finished.pages,
  () => void finished.proof(),
)
function report(): void {
  const { fileName } = finished.info!.document
  const csv = proofCsv([finishedProofed(fileName, finished.findings ?? [])])
  saveFile(new Blob([csv], { type: 'text/csv' }), `${fileName.replace(/\.\w+$/, '')}, proof.csv`)
}
const pdf = useAnswer()
const reportPdf = () => pdf.take(`/api/documents/${finished.info!.document.id}/proof-pdf`)
async function putRight(): Promise<void> {
  if (!finished.trial) return
  await finished.make(finished.trial.changes)
}
</script>

<template>
  <h1 v-if="finished.findings">
    {{ finished.findings.length === 0 ? 'Nothing found' : counted(finished.findings.length, 'finding') }}
  </h1>
  <h1 v-else>Proof</h1>
  <p class="text-soft">
    <template v-if="!finished.findings">Looking the pages over …</template
    ><template v-else
      >By the <Term word="checklist">checklist</Term> of
      {{
        finished.house
          ? finished.house.checks
            ? `the house ${finished.house.name}`
            : `the desk and the house ${finished.house.name}`
          : 'the desk'
      }}: what pages alone can tell. N goes to the next place.</template
    >
  </p>
  <template v-if="finished.trial">
    <div class="mt-3 border border-verdigris bg-sheet px-3 py-2">
      <p>
        <strong>{{ finished.trial.trial.title }}?</strong> The pages show them as they would be.
      </p>
      <ul class="mt-1 max-h-[220px] overflow-y-auto text-[13px]">
        <li v-for="(line, index) in finished.trial.trial.corrected" :key="index" class="border-t border-rule py-1">
          {{ line.becomes }}
          <span class="text-soft"
            >in {{ line.standIn ?? line.font }}, {{ Math.abs(line.gain) }} pt
            {{ line.gain < 0 ? 'narrower' : 'wider' }}</span
          >
        </li>
        <li v-for="each in finished.trial.trial.refused" :key="each" class="border-t border-rule py-1 text-ochre">
          ▲ {{ each }}
        </li>
      </ul>
      <div class="mt-2 flex gap-2">
        <button type="button" class="act" :disabled="finished.trying" @click="putRight">
          Put {{ counted(finished.trial.trial.corrected.length, 'line') }} right
        </button>
        <button type="button" class="plain" @click="finished.dropTrial()">Leave it</button>
      </div>
    </div>
  </template>
  <div v-else-if="finished.findings" class="mt-3 flex flex-wrap gap-2">
    <button
      v-if="mendable.length > 0"
      type="button"
      class="act"
      :disabled="finished.trying"
      @click="finished.look(mendable)"
    >
      See {{ counted(mendable.length, 'finding') }} put right
    </button>
    <button type="button" class="plain" :disabled="pdf.busy.value" @click="reportPdf">
      {{ pdf.busy.value ? 'Writing …' : 'Report as PDF' }}
    </button>
    <button type="button" class="plain" @click="report">Report as CSV</button>
  </div>
  <NoticeLine v-if="pdf.failed.value" kind="failed">{{ pdf.failed.value }}</NoticeLine>
  <ChangeFoot />
  <ul v-if="finished.findings" class="mt-3 border-t border-rule" aria-label="What the checks found">
    <li v-for="findings in rows" :key="findings[0]!.check" class="border-b border-rule">
      <div class="flex min-h-[34px] items-baseline gap-3 py-1">
        <SeverityMark :severity="findings[0]!.severity" class="w-[74px] shrink-0" />
        <button
          type="button"
          class="link min-w-0 flex-1 text-left"
          :aria-expanded="opened === findings[0]!.check"
          @click="toggle(findings)"
        >
          {{ findings[0]!.title }}
        </button>
        <span class="tabular-nums">{{ grouped(findings.length) }}</span>
        <button
          v-if="repairsOf(findings).length > 0"
          type="button"
          class="plain !min-h-[28px] w-[112px] !py-0"
          :aria-label="`See put right: ${findings[0]!.title}, ${counted(repairsOf(findings).length, 'place')}`"
          :disabled="finished.trying"
          @click="finished.look(repairsOf(findings))"
        >
          See it right
        </button>
        <span v-else class="w-[112px] text-right text-[13px] text-soft">by hand</span>
      </div>
      <div v-if="opened === findings[0]!.check" class="mb-3 ml-[86px]">
        <p class="text-[13px] text-soft">
          {{ about(findings[0]!.check)?.looksFor }}
          <span class="italic">{{ about(findings[0]!.check)?.source }}</span> {{ about(findings[0]!.check)?.unseen }}
        </p>
        <ul class="mt-1">
          <li v-for="finding in findings.slice(0, 100)" :key="finding.id" class="flex gap-3 border-t border-rule py-1">
            <button
              v-if="finding.place"
              type="button"
              class="link min-w-0 flex-1 text-left"
              @click="walkTo(findings, finding)"
            >
              {{ finding.says }}
            </button>
            <span v-else class="min-w-0 flex-1">{{ finding.says }}</span>
            <span class="number text-soft">{{ pagesOf([finding]) }}</span>
          </li>
        </ul>
        <p v-if="findings.length > 100" class="text-soft">{{ counted(findings.length - 100, 'more') }} of this.</p>
      </div>
    </li>
  </ul>
  <PageRemarks
    v-if="finished.info"
    :info="finished.info"
    :page="finished.page"
    :pointed="null"
    @go="remark => remark.place?.kind === 'page' && finished.show(remark.place.page)"
  >
    <template #hint>It is about the page that is shown.</template>
  </PageRemarks>
</template>
