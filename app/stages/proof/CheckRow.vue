<script setup lang="ts">
import { counted, grouped } from '../../desk/words'
import { stages as tabs, useStages } from '../../desk/stages'
import { useProof, type CheckGroupRow, type FindingGroup } from '../../stores/proof'
import SeverityMark from './SeverityMark.vue'

/** All that one check found: laid open, what it says in how many places, each to walk through and to put right. */
const props = defineProps<{ row: CheckGroupRow }>()
const proof = useProof()
const stages = useStages()
/** The tab where what has no repair is put right. */
const stageTitle = computed(() => tabs.find(each => each.id === check.value?.stage)?.title ?? '')
const listed = ref(40)
const open = computed(() => proof.opened === props.row.check)
const check = computed(() => proof.checks.find(each => each.id === props.row.check))
const mendable = computed(() => props.row.findings.filter(each => each.repair !== null && each.accepted === null))
const isAt = ({ findings }: FindingGroup) => proof.current !== null && findings.includes(proof.current)
const pages = ({ findings }: FindingGroup) => {
  const own = [...new Set(findings.flatMap(each => (each.page < 0 ? [] : [each.page + 1])))]
  return own.length === 0 ? '–' : own.length > 4 ? `${own[0]}–${own.at(-1)}` : own.join(', ')
}

function toggle(): void {
  proof.opened = open.value ? null : props.row.check
  if (proof.opened !== null) proof.walk(props.row.findings)
}
</script>

<template>
  <li class="border-b border-rule">
    <div class="flex min-h-[34px] items-baseline gap-3 py-1">
      <SeverityMark :severity="row.severity" class="w-[74px] shrink-0" />
      <button type="button" class="link min-w-0 flex-1 text-left" :aria-expanded="open" @click="toggle">
        {{ row.title }}
      </button>
      <span class="tabular-nums">{{ grouped(row.findings.length) }}{{ row.more > 0 ? '+' : '' }}</span>
      <button
        v-if="mendable.length > 0"
        type="button"
        class="plain !min-h-[28px] w-[112px] !py-0"
        :aria-label="`Put right: ${row.title}, ${counted(mendable.length, 'place')}`"
        :disabled="proof.change.busy !== ''"
        @click="proof.plan(mendable)"
      >
        Put right
      </button>
      <button
        v-else-if="check?.stage && !row.findings[0]?.accepted"
        type="button"
        class="link w-[112px] text-right text-[13px]"
        @click="stages.go(check.stage)"
      >
        To {{ stageTitle }}
      </button>
      <span v-else class="w-[112px] text-right text-[13px] text-soft">{{
        row.findings[0]?.accepted ? 'accepted' : 'by hand'
      }}</span>
    </div>
    <div v-if="open" class="mb-3 ml-[86px]">
      <p class="text-[13px] text-soft">
        {{ check?.looksFor }} <span class="italic">{{ check?.source }}</span> {{ check?.unseen }}
      </p>
      <table class="mt-1 table-fixed" :aria-label="`${row.title}: what was found`">
        <colgroup>
          <col />
          <col class="w-[74px]" />
          <col class="w-[50px]" />
        </colgroup>
        <tbody>
          <tr v-for="group in row.groups.slice(0, listed)" :key="group.says" :class="{ 'bg-wash': isAt(group) }">
            <td>
              <button
                type="button"
                class="link w-full text-left"
                :aria-current="isAt(group)"
                @click="proof.walk(group.findings)"
              >
                {{ group.says }}
              </button>
            </td>
            <td class="number text-soft">{{ pages(group) }}</td>
            <td class="number">{{ grouped(group.findings.length) }}</td>
          </tr>
        </tbody>
      </table>
      <button v-if="row.groups.length > listed" type="button" class="link mt-1" @click="listed += 200">
        Show {{ grouped(Math.min(200, row.groups.length - listed)) }} more
      </button>
      <p v-if="row.more > 0" class="mt-1 text-soft">
        {{ counted(row.more, 'more place') }} of this: told when these are done.
      </p>
    </div>
  </li>
</template>
