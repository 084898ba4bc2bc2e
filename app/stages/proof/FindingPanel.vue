<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useProof } from '../../stores/proof'
import SeverityMark from './SeverityMark.vue'
import Term from '../../kit/Term.vue'
import GiveTo from '../../remarks/GiveTo.vue'
import { useMe } from '../../stores/me'
import { useRemarks } from '../../stores/remarks'

/** The finding that the walk is at: put right, accepted with a reason, or passed by. */
const desk = useDesk()
const proof = useProof()
const finding = computed(() => proof.current!)
const reason = ref('')
const asking = ref(false)
const field = ref<HTMLInputElement | null>(null)
const me = useMe()
const remarks = useRemarks()
/** What is said of the finding to whoever is to see to it; null while nobody is asked. */
const handing = ref<string | null>(null)
const to = ref<string | null>(null)
const handed = ref('')
// A proof that is made anew finds the same again: what was begun on it goes on.
watch(
  () => JSON.stringify(proof.current?.key),
  () => {
    asking.value = false
    handing.value = null
    handed.value = ''
  },
)
async function hand(): Promise<void> {
  const { check, says, place } = finding.value
  const { engine, info } = desk
  if (!engine || !info || !handing.value?.trim()) return
  const range = place && { part: place.part, node: place.node, from: place.start, to: place.end }
  const about = range && (await engine.ask('quote', { range }))
  const remark = {
    version: info.document.version,
    place: about,
    text: handing.value,
    to: to.value,
    finding: { check, says },
  }
  if (await remarks.add(remark)) {
    handing.value = null
    handed.value = to.value === null ? 'It is among the remarks' : `It is given to ${me.nameOf(to.value)}`
  }
}
async function ask(): Promise<void> {
  asking.value = true
  await nextTick()
  field.value?.focus()
}
async function accept(all: boolean): Promise<void> {
  const { check, says } = finding.value
  const which = all ? proof.shown.filter(each => each.check === check && each.says === says) : [finding.value]
  if (await proof.accept(which, reason.value.trim())) asking.value = false
}
</script>

<template>
  <section class="mt-3 border border-ink bg-sheet px-3 py-2.5" aria-label="The finding that is walked to">
    <p class="flex flex-wrap items-baseline gap-x-3">
      <SeverityMark :severity="finding.severity" /><strong>{{ finding.title }}</strong
      ><span class="text-soft">{{ finding.page < 0 ? '' : `page ${finding.page + 1}` }}</span>
    </p>
    <p>{{ finding.says }}</p>
    <p v-if="finding.text.trim() !== ''" class="line-clamp-2 text-soft">“{{ finding.text }}”</p>
    <p v-if="finding.accepted !== null" class="text-soft">Accepted: {{ finding.accepted }}</p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button
        v-if="finding.repair && finding.accepted === null"
        type="button"
        class="act"
        :disabled="proof.change.busy !== ''"
        @click="proof.plan([finding])"
      >
        <span class="sr-only">This one: </span>Put it right
      </button>
      <button v-if="finding.accepted === null && !asking" type="button" class="plain" @click="ask">Accept it</button>
      <button
        v-if="finding.accepted === null && handing === null && me.may('remark')"
        type="button"
        class="plain"
        @click="handing = finding.says"
      >
        {{ me.isShared ? 'Give it to somebody' : 'Remark on it' }}
      </button>
      <button v-if="finding.accepted !== null" type="button" class="plain" @click="proof.reopen([finding])">
        Tell it again
      </button>
      <button type="button" class="plain" title="Shift with N" @click="desk.walk(-1)">Finding before</button>
      <button type="button" class="plain" title="N" @click="desk.walk(1)">Next finding</button>
      <span class="text-soft tabular-nums">{{ desk.at + 1 }} of {{ proof.walked.length }}</span>
    </div>
    <p v-if="handed" role="status" class="mt-1 text-verdigris">{{ handed }}.</p>
    <p v-if="handing !== null && remarks.message" role="alert" class="mt-1 text-rubric">{{ remarks.message }}</p>
    <form v-if="handing !== null" class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="hand">
      <label class="w-full text-[13px] text-soft"
        >What is to be seen to
        <input v-model="handing" class="field mt-[2px] w-full text-[14px] text-ink" maxlength="4000"
      /></label>
      <GiveTo
        v-if="me.isShared"
        v-model="to"
        label="Whom the finding is given to"
        class="min-w-[160px] text-[14px] text-ink"
      />
      <button type="submit" class="act" :disabled="handing.trim() === ''">Keep it as a remark</button>
      <button type="button" class="plain" @click="handing = null">Leave it</button>
    </form>
    <form v-if="asking" class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="accept(false)">
      <label class="flex-1 text-[13px] text-soft"
        >Why it stays as it is
        <input ref="field" v-model="reason" class="field mt-[2px] w-full text-[14px] text-ink" maxlength="500"
      /></label>
      <button type="submit" class="act" :disabled="reason.trim() === ''"><Term word="accept">Accept</Term></button>
      <button type="button" class="plain" :disabled="reason.trim() === ''" @click="accept(true)">
        All that say this
      </button>
      <button type="button" class="plain" @click="asking = false">Leave it</button>
    </form>
  </section>
</template>
