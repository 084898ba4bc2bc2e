<script setup lang="ts">
import type { TraceLayer, TraceRow } from '~~/core/style/tracing'
import type { TracedText } from '~~/core/change/styles/trace-at'
import { useDesk } from '../../stores/desk'
import type { StyleFamily, TextFamily } from '~~/core/style/families'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import AdoptForm from '../../kit/AdoptForm.vue'
import Term from '../../kit/Term.vue'

/** Why the text under the caret looks as it does: every property, the layer that set it, and those it beat. */
const desk = useDesk()
const styles = useStyles()
const words = useWords()
const traced = shallowRef<TracedText | null>(null)
const all = ref(false)

watch(
  () => [words.spot, desk.generation, desk.census] as const,
  async () => {
    const { spot } = words
    traced.value = spot && desk.engine ? await desk.engine.ask('trace', { spot }).catch(() => null) : null
  },
  { immediate: true },
)

const rows = computed(() => (traced.value?.rows ?? []).filter(row => all.value || row.winner !== null))
const places: Record<TraceLayer['from'], string> = {
  default: 'what text starts with',
  frame: 'its frame',
  cell: 'its table cell',
  chart: 'its chart',
  paragraph: 'paragraph',
  list: 'list',
  text: 'words',
}
function said(layer: TraceLayer): string {
  if (layer.from === 'default') return places.default
  return layer.local
    ? `set by hand on the ${layer.from === 'text' ? 'words' : layer.from === 'paragraph' ? 'paragraph' : places[layer.from]}`
    : layer.displayName
}
const stray = (row: TraceRow) => row.winner?.local === true
const goes = (layer: TraceLayer | null) =>
  layer !== null && !layer.local && (layer.family === 'paragraph' || layer.family === 'text') && layer.name !== ''
function open(layer: TraceLayer): void {
  styles.selected = { family: layer.family as StyleFamily, name: layer.name }
  styles.panel = 'edit'
}

/** The stretch under the caret, or what is selected. */
const scope = computed(() =>
  words.hasSelection
    ? styles.target!.scope
    : {
        kind: 'ranges' as const,
        ranges: [
          { part: words.spot!.part, node: words.spot!.node, from: traced.value?.from ?? 0, to: traced.value?.to ?? 0 },
        ],
      },
)
function letGo(row: TraceRow): void {
  const whole = row.winner!.from === 'paragraph'
  void styles.carryOut([
    {
      type: 'settle',
      scope: whole ? styles.scopeFor('paragraph')! : scope.value,
      groups: [row.group],
      keep: [],
      idleOnly: false,
    },
  ])
}
const local = computed(() => traced.value !== null && traced.value.rows.some(stray))
const byWords = computed(() => traced.value?.rows.some(row => row.winner?.local && row.winner.from === 'text') ?? false)
/** What was set on words is made a style of the words, or of their paragraph where it holds for all of it. */
const kinds = computed(() =>
  byWords.value
    ? traced.value?.whole
      ? (['paragraph', 'text'] as const)
      : (['text'] as const)
    : (['paragraph'] as const),
)
function adopt(family: TextFamily, displayName: string): void {
  void styles.propose([
    {
      type: 'adopt',
      family,
      displayName,
      scope: family === 'text' ? scope.value : styles.scopeFor('paragraph')!,
    },
  ])
}
</script>

<template>
  <section v-if="traced" class="mt-5" aria-labelledby="trace">
    <h2 id="trace"><Term word="why">Why it looks so</Term></h2>
    <p>
      <template v-if="traced.text.trim() !== ''"
        >“{{ traced.text.trim().slice(0, 60) }}{{ traced.text.trim().length > 60 ? ' …' : '' }}”</template
      ><template v-else>White space</template
      ><span class="text-soft">
        in {{ [traced.paragraphStyle ?? 'no paragraph style', traced.textStyle].filter(Boolean).join(', ') }};
        {{ traced.settled ? 'settled' : 'with local formatting'
        }}{{ traced.slot === 'western' ? '' : `; ${traced.slot} text` }}</span
      >
    </p>
    <table class="mt-1 table-fixed">
      <colgroup>
        <col class="w-[104px]" />
        <col class="w-[130px]" />
        <col />
        <col class="w-[58px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Property</th>
          <th scope="col">Value</th>
          <th scope="col">Set by, over</th>
          <th scope="col"><span class="sr-only">Let go</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.group">
          <td class="truncate">{{ row.title }}</td>
          <td class="truncate" :title="row.value">{{ row.value }}</td>
          <td
            class="truncate"
            :title="
              [row.winner ? said(row.winner) : '', ...row.beaten.map(layer => `${said(layer)}: ${layer.words}`)].join(
                ' ← ',
              )
            "
          >
            <span v-if="!row.winner" class="text-soft">nothing</span>
            <button v-else-if="goes(row.winner)" type="button" class="link" @click="open(row.winner)">
              {{ said(row.winner) }}
            </button>
            <span v-else :class="{ 'text-ochre': stray(row) }">{{ said(row.winner) }}</span>
            <span v-for="(layer, at) in row.beaten" :key="at" class="text-soft">
              ← {{ said(layer) }}: {{ layer.words }}</span
            >
          </td>
          <td>
            <button
              v-if="stray(row) && (row.winner!.from === 'text' || row.winner!.from === 'paragraph')"
              type="button"
              class="link"
              :aria-label="`Let go of ${row.title}`"
              @click="letGo(row)"
            >
              Let go
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="mt-2 flex flex-wrap items-center gap-3 text-[13px]">
      <button type="button" class="link" @click="all = !all">{{ all ? 'Only what is set' : 'All properties' }}</button>
      <button
        v-if="!traced.settled"
        type="button"
        class="link"
        @click="
          styles.carryOut([
            {
              type: 'settle',
              scope: words.hasSelection ? scope : styles.scopeFor('paragraph')!,
              groups: [...styles.groups],
              keep: [...styles.keep],
              idleOnly: false,
            },
          ])
        "
      >
        Settle {{ words.hasSelection ? 'the selection' : 'this paragraph' }}
      </button>
      <button
        v-if="local"
        type="button"
        class="link"
        @click="styles.propose([{ type: 'teach', scope: byWords ? scope : styles.scopeFor('paragraph')! }])"
      >
        Teach its style this look
      </button>
    </div>
    <AdoptForm v-if="local" :kinds="kinds" :whole="traced.whole" @adopt="adopt" />
  </section>
</template>
