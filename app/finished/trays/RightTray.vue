<script setup lang="ts">
import { plainNumber } from '~~/core/style/describe'
import type { ShownLine } from '~~/core/format/finished/reader'
import { useFinished } from '../../stores/finished'
import { useFinishedEdits } from '../../stores/finished-edits'
import ChangeFoot from './ChangeFoot.vue'

/** A line is put right: in the font that shows it, where that has all its letters, else in a stand-in, told before. */
const finished = useFinished()
const edits = useFinishedEdits()
const lines = shallowRef<readonly ShownLine[]>([])
const field = ref<HTMLTextAreaElement | null>(null)
const plan = computed(() => finished.trial?.trial.corrected[0] ?? null)
const room = computed(() => {
  if (!plan.value || !edits.picked) return null
  const { width } = finished.sheets[edits.picked.page - 1]!
  return Math.round((width - plan.value.at.x - plan.value.at.width - plan.value.gain) * 10) / 10
})

watch(
  [() => finished.page, () => finished.pages],
  async () => {
    lines.value = (await finished.engine?.ask('lines', { page: finished.page + 1 })) ?? []
  },
  { immediate: true },
)
watch(
  () => edits.correction,
  change => void edits.tryOut(change),
)
watch(
  () => edits.picked,
  async picked => {
    if (!picked) return
    await nextTick()
    field.value?.focus()
  },
)
</script>

<template>
  <h1>Put right</h1>
  <template v-if="edits.picked">
    <p class="text-soft">
      A line of page {{ edits.picked.page }}, in {{ edits.picked.line.font }},
      {{ plainNumber(edits.picked.line.size) }} pt.
    </p>
    <form class="mt-3" @submit.prevent="edits.correction && edits.make(edits.correction)">
      <label class="block text-[13px] text-soft"
        >The line as it shall be
        <textarea
          ref="field"
          v-model="edits.words"
          rows="2"
          class="field mt-[2px] w-full text-[15px] text-ink"
          :disabled="edits.picked.line.inForm"
          @keydown.enter.exact.prevent="edits.correction && edits.make(edits.correction)"
        />
      </label>
      <p v-if="edits.picked.line.inForm" class="mt-2 text-ochre">
        ▲ This line stands in a form that the page draws, and maybe elsewhere as well: it is not put right here.
      </p>
      <dl v-if="plan" class="mt-3 border-t border-rule" aria-label="How it would be done">
        <div class="flex gap-3 border-b border-rule py-1">
          <dt class="w-[110px] shrink-0 text-soft">Set in</dt>
          <dd>
            <template v-if="plan.standIn === null">its own font, {{ plan.font }}</template
            ><template v-else
              ><strong>{{ plan.standIn }}</strong
              >, the whole line, since {{ plan.font }} has no “{{ plan.missing }}”</template
            >
          </dd>
        </div>
        <div class="flex gap-3 border-b border-rule py-1">
          <dt class="w-[110px] shrink-0 text-soft">Width</dt>
          <dd>
            {{
              plan.gain === 0
                ? 'as it was'
                : `${plainNumber(Math.abs(plan.gain))} pt ${plan.gain > 0 ? 'wider' : 'narrower'}`
            }}<template v-if="room !== null && plan.gain > 0"
              >; {{ plainNumber(Math.max(0, room)) }} pt to the page’s edge</template
            >
          </dd>
        </div>
        <div v-if="plan.stays.trim() !== '' && Math.abs(plan.gain) > 0.5" class="flex gap-3 border-b border-rule py-1">
          <dt class="w-[110px] shrink-0 text-soft">Stays in place</dt>
          <dd>“{{ plan.stays.trim() }}”, which has a place of its own</dd>
        </div>
      </dl>
      <p v-if="plan && room !== null && room < 0" class="mt-2 text-rubric">■ The line would run off the page.</p>
      <ChangeFoot />
      <div class="mt-3 flex gap-2">
        <button type="submit" class="act" :disabled="!finished.trial || finished.trying">Put it right</button>
        <button type="button" class="plain" @click="edits.leave()">Leave it</button>
      </div>
    </form>
  </template>
  <template v-else>
    <p class="text-soft">
      Press on a line of the page, or choose one here. Before anything is done, the page shows how it would look.
    </p>
    <ChangeFoot />
    <h2 class="mt-4">Lines of page {{ finished.page + 1 }}</h2>
    <p v-if="lines.length === 0" class="text-soft">This page has no text: what it shows is a picture.</p>
    <ul class="mt-1 border-t border-rule" :aria-label="`Lines of page ${finished.page + 1}`">
      <li v-for="line in lines" :key="line.line" class="border-b border-rule">
        <button
          type="button"
          class="flex w-full items-baseline gap-3 py-1 text-left hover:bg-wash"
          @click="edits.pick(finished.page + 1, line)"
        >
          <span class="min-w-0 flex-1 truncate">{{ line.text }}</span>
          <span class="w-[170px] shrink-0 truncate text-[13px] text-soft">{{ line.font }}</span>
          <span class="w-[56px] shrink-0 text-right text-[13px] text-soft tabular-nums"
            >{{ plainNumber(line.size) }} pt</span
          >
        </button>
      </li>
    </ul>
  </template>
</template>
