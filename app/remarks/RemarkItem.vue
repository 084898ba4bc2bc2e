<script setup lang="ts">
import type { PlacedRemark } from '~~/core/desk/remark-places'
import type { Remark } from '~~/shared/remarks'
import GiveTo from './GiveTo.vue'
import { aboutWords, stateWords } from './words'
import { dayWords } from '../desk/words'
import { useMe } from '../stores/me'
import { useRemarks } from '../stores/remarks'

/** A remark with its answers, and what can be done with it. */
const props = defineProps<{
  remark: Remark
  /** Where its words are now; null where that is not known. */
  placed: PlacedRemark | null
  /** The walk is at it. */
  current: boolean
  /** It may be written into the file. */
  writes: boolean
  /** Whoever looks may change the document. */
  changes: boolean
}>()
const emit = defineEmits<{ go: []; write: [] }>()
const me = useMe()
const remarks = useRemarks()
const answer = ref<string | null>(null)
const field = ref<HTMLTextAreaElement | null>(null)
const own = computed(() => me.me?.person?.id ?? 'desk')
const concerns = computed(() => props.remark.author === own.value || props.remark.to === own.value || props.changes)
const mayTake = computed(
  () =>
    me.may('people') ||
    (props.remark.author === own.value && props.remark.answers.every(each => each.author === own.value)),
)
const canGo = computed(() => (props.placed?.page ?? -1) >= 0 || props.remark.place?.kind === 'page')
const name = (person: string) => me.nameOf(person) || 'somebody'
const about = computed(() => aboutWords(props.remark, props.placed?.page ?? -1))

async function open(): Promise<void> {
  answer.value = ''
  await nextTick()
  field.value?.focus()
}
async function keep(): Promise<void> {
  if (answer.value?.trim() && (await remarks.act(props.remark.id, { act: 'answer', text: answer.value })))
    answer.value = null
}
</script>

<template>
  <li
    class="border-b border-rule py-2"
    :class="{ '-mx-2 bg-wash px-2': current }"
    :aria-label="`Remark about ${about}`"
  >
    <p class="flex flex-wrap items-baseline gap-x-2">
      <strong v-if="me.isShared" class="font-medium">{{ name(remark.author) }}</strong><span
        class="text-[13px] text-soft"
        >{{ dayWords(remark.created) }}, version {{ remark.version }}</span
      ><span v-if="remark.to" class="text-[13px]"
        ><span aria-hidden="true">→ </span><span class="sr-only">given to </span>{{ name(remark.to) }}</span
      >
    </p>
    <p class="text-[13px] text-soft">
      {{ about
      }}<span v-if="placed && stateWords[placed.state]" class="text-ochre">, {{ stateWords[placed.state] }}</span>
    </p>
    <p v-if="remark.finding" class="text-[13px] text-soft">Finding: {{ remark.finding.says }}</p>
    <p class="whitespace-pre-line">{{ remark.text }}</p>
    <ol v-if="remark.answers.length > 0" class="mt-1 border-l-2 border-rule pl-3" aria-label="Answers">
      <li v-for="each in remark.answers" :key="each.id" class="py-0.5">
        <span class="text-[13px] text-soft"
          >{{ me.isShared ? `${name(each.author)}, ` : '' }}{{ dayWords(each.created) }}</span
        ><br />
        <span class="whitespace-pre-line">{{ each.text }}</span>
      </li>
    </ol>
    <p v-if="remark.settled" class="text-[13px] text-verdigris">
      <span aria-hidden="true">✓ </span>Settled{{ me.isShared ? ` by ${name(remark.settled.person)}` : '' }},
      {{ dayWords(remark.settled.at) }}
    </p>
    <form v-if="answer !== null" class="mt-1" @submit.prevent="keep">
      <label class="block text-[13px] text-soft"
        >Your answer
        <textarea
          ref="field"
          v-model="answer"
          rows="2"
          maxlength="4000"
          class="field mt-[2px] h-auto w-full py-1 text-[14px] text-ink"
          @keydown.escape.stop="answer = null"
        />
      </label>
      <span class="mt-1 flex gap-2">
        <button type="submit" class="act" :disabled="answer.trim() === ''">Keep the answer</button>
        <button type="button" class="plain" @click="answer = null">Leave it</button>
      </span>
    </form>
    <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
      <button v-if="canGo" type="button" class="link py-0.5" @click="emit('go')">Go there</button>
      <template v-if="me.may('remark')">
        <button v-if="answer === null" type="button" class="link py-0.5" @click="open">Answer</button>
        <button
          v-if="concerns"
          type="button"
          class="link py-0.5"
          @click="remarks.act(remark.id, { act: remark.settled ? 'reopen' : 'settle' })"
        >
          {{ remark.settled ? 'Open it again' : 'Settle' }}
        </button>
        <button v-if="writes && placed?.occurrence" type="button" class="link py-0.5" @click="emit('write')">
          Write it into the file
        </button>
        <button v-if="mayTake" type="button" class="link py-0.5" @click="remarks.remove(remark.id)">
          Take it away
        </button>
        <span v-if="me.isShared && concerns && !remark.settled" class="text-[13px] text-soft"
          >to
          <GiveTo
            :model-value="remark.to"
            :label="`Whom the remark about ${about} is given to`"
            class="min-w-[140px] text-[14px] text-ink"
            @update:model-value="remarks.act(remark.id, { act: 'give', to: $event })"
        /></span>
      </template>
    </div>
  </li>
</template>
