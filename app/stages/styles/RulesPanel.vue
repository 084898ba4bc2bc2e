<script setup lang="ts">
import type { LeadInRule, PatternRule } from '~~/core/document/rules'
import type { RulePreview } from '~~/core/change/rules/rule-preview'
import { patternParts, wordListPattern } from '~~/core/style/rule-matching'
import Choice from '../../kit/Choice.vue'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import Term from '../../kit/Term.vue'

/** Text that styles itself: pattern rules and lead-in rules of one paragraph style. */
const desk = useDesk()
const styles = useStyles()
const style = computed(() => styles.summary!)
const patterns = ref<PatternRule[]>([])
const leadIns = ref<LeadInRule[]>([])
/** The rule whose matches are lit up on the sheets. */
const at = ref<string | null>(null)
const found = shallowRef<RulePreview | null>(null)
const ownWords = ref('')
const characters = computed(() => styles.list.filter(each => each.family === 'text'))

onMounted(async () => {
  const detail = await desk.engine?.ask('style', { family: 'paragraph', name: style.value.name })
  patterns.value = (detail?.patterns ?? []).map(rule => ({ ...rule }))
  leadIns.value = (detail?.leadIns ?? []).map(rule => ({ ...rule }))
  at.value = patterns.value[0]?.id ?? leadIns.value[0]?.id ?? null
})
const newId = () => Array.from(crypto.getRandomValues(new Uint8Array(8)), byte => (byte % 36).toString(36)).join('')
function addPattern(part: { readonly title: string; readonly pattern: string }): void {
  const rule: PatternRule = {
    id: newId(),
    style: style.value.name,
    title: part.title,
    pattern: part.pattern,
    ignoreCase: false,
    character: '',
    on: true,
  }
  patterns.value = [...patterns.value, rule]
  at.value = rule.id
}
function addWords(): void {
  const pattern = wordListPattern(ownWords.value.split(/[,;\n]/))
  if (pattern !== '') addPattern({ title: 'Own words', pattern })
  ownWords.value = ''
}
const openings: readonly { readonly title: string; readonly what: LeadInRule['what'] }[] = [
  { title: 'First letter', what: { kind: 'first-letter' } },
  { title: 'First line', what: { kind: 'first-line' } },
  { title: 'First words', what: { kind: 'words', count: 3 } },
  { title: 'Up to a sign', what: { kind: 'through', sign: ':' } },
  { title: 'A pattern at the start', what: { kind: 'pattern', pattern: '\\p{Lu}+' } },
]
function addLeadIn(each: (typeof openings)[number]): void {
  const rule: LeadInRule = {
    id: newId(),
    style: style.value.name,
    title: each.title,
    character: '',
    on: true,
    what: { ...each.what },
  }
  leadIns.value = [...leadIns.value, rule]
  at.value = rule.id
}
function remove(id: string): void {
  patterns.value = patterns.value.filter(rule => rule.id !== id)
  leadIns.value = leadIns.value.filter(rule => rule.id !== id)
  if (at.value === id) at.value = null
}
function up(index: number): void {
  const next = [...patterns.value]
  const [rule] = next.splice(index, 1)
  next.splice(index - 1, 0, rule!)
  patterns.value = next
}

const current = computed(
  () => patterns.value.find(rule => rule.id === at.value) ?? leadIns.value.find(rule => rule.id === at.value) ?? null,
)
let asked = 0
let timer: ReturnType<typeof setTimeout> | undefined
// Matches light up while one types: the pattern runs in the worker, in time that the text's length bounds.
watch(
  [current, patterns, leadIns],
  () => {
    clearTimeout(timer)
    timer = setTimeout(async () => {
      const own = ++asked
      const rule = current.value
      const next =
        rule && desk.engine
          ? await desk.engine
              .ask('previewRule', { rule: JSON.parse(JSON.stringify(rule)) as PatternRule })
              .catch((error: Error): RulePreview => ({ places: [], more: false, message: error.message }))
          : null
      if (own !== asked) return
      found.value = next
      desk.lit = (next?.places ?? []).map(place => ({
        part: place.part,
        node: place.node,
        from: place.from,
        to: place.to,
        through: false,
      }))
    }, 120)
  },
  { deep: true, immediate: true },
)
onBeforeUnmount(() => {
  clearTimeout(timer)
  asked++
  desk.lit = []
})

const wish = computed(() => ({
  type: 'rules' as const,
  style: style.value.name,
  patterns: JSON.parse(JSON.stringify(patterns.value)) as PatternRule[],
  leadIns: JSON.parse(JSON.stringify(leadIns.value)) as LeadInRule[],
}))
const unfinished = computed(() => [...patterns.value, ...leadIns.value].some(rule => rule.character === ''))
function walk(): void {
  desk.walkThrough(
    (found.value?.places ?? []).map(place => ({
      part: place.part,
      node: place.node,
      start: place.from,
      end: place.to,
      page: -1,
      face: '',
      voice: '',
      place: 'body',
    })),
  )
}
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1"><Term word="rule">Rules</Term> of {{ style.displayName }}</h1>
    <p class="text-soft">
      Text of this style that a rule takes gets a character style by itself, now and whenever it is edited. Other
      programs see it as spans.
    </p>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <p v-if="characters.length === 0" class="mt-3 border border-ochre bg-sheet p-3">
      A rule gives text a character style, and this document has none yet.
      <button
        type="button"
        class="link"
        @click="
          () => {
            styles.selected = null
            styles.panel = 'make'
          }
        "
      >
        Make one first
      </button>
    </p>
    <div class="sticky top-0 z-10 mt-2 flex gap-2 border-b border-rule bg-paper py-2">
      <button type="button" class="act" :disabled="styles.busy || unfinished" @click="styles.propose([wish])">
        Show the plan
      </button>
      <button type="button" class="plain" @click="styles.leave()">Leave it</button>
    </div>

    <h2 class="mt-4">Patterns</h2>
    <p v-if="patterns.length === 0" class="text-soft">None yet. Pick a part to begin with, or your own words.</p>
    <fieldset
      v-for="(rule, index) in patterns"
      :key="rule.id"
      class="mt-2 border bg-sheet p-2"
      :class="at === rule.id ? 'border-ink' : 'border-rule'"
      @focusin="at = rule.id"
    >
      <legend class="sr-only">Pattern {{ index + 1 }}</legend>
      <div class="flex flex-wrap items-center gap-2">
        <input v-model="rule.title" class="field !min-h-[26px] w-[170px] !py-0" aria-label="What the rule is called" />
        <label class="flex items-center gap-1.5 text-soft"
          >takes
          <Choice
            v-model="rule.character"
            aria-label="Character style that it takes"
            class="!min-h-[26px] max-w-[150px] !py-0 text-ink"
          >
            <option value="">choose a style</option>
            <option v-for="each in characters" :key="each.name" :value="each.name">{{ each.displayName }}</option>
          </Choice></label
        >
        <label class="flex items-center gap-1.5"><input v-model="rule.on" type="checkbox" /> on</label>
        <button type="button" class="link" :disabled="index === 0" @click="up(index)">Earlier</button>
        <button type="button" class="link" @click="remove(rule.id)">Remove</button>
      </div>
      <div class="mt-2 flex items-center gap-2">
        <input
          v-model="rule.pattern"
          class="field !min-h-[26px] w-full !py-0 font-mono text-[13px]"
          spellcheck="false"
          aria-label="The pattern, a regular expression"
          maxlength="2000"
        />
        <label class="flex shrink-0 items-center gap-1.5 text-[13px] text-soft"
          ><input v-model="rule.ignoreCase" type="checkbox" /> any case</label
        >
      </div>
    </fieldset>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <Choice
        aria-label="Add a pattern from its parts"
        :model-value="''"
        @update:model-value="addPattern(patternParts.find(each => each.title === $event)!)"
      >
        <option value="">Add a pattern for …</option>
        <option v-for="part in patternParts" :key="part.title" :value="part.title">
          {{ part.title }}: {{ part.example }}
        </option>
      </Choice>
      <form class="flex gap-2" @submit.prevent="addWords">
        <input
          v-model="ownWords"
          class="field w-[200px]"
          placeholder="own words, with commas"
          aria-label="Own words, with commas between"
        /><button type="submit" class="plain" :disabled="ownWords.trim() === ''">Add the words</button>
      </form>
    </div>

    <h2 class="mt-5">Openings</h2>
    <fieldset
      v-for="(rule, index) in leadIns"
      :key="rule.id"
      class="mt-2 flex flex-wrap items-center gap-2 border bg-sheet p-2"
      :class="at === rule.id ? 'border-ink' : 'border-rule'"
      @focusin="at = rule.id"
    >
      <legend class="sr-only">Opening {{ index + 1 }}</legend>
      <input v-model="rule.title" class="field !min-h-[26px] w-[140px] !py-0" aria-label="What the opening is called" />
      <label v-if="rule.what.kind === 'words'" class="text-soft"
        ><input
          v-model.number="rule.what.count"
          type="number"
          min="1"
          max="100"
          class="field !min-h-[26px] w-[56px] !py-0 text-ink"
          aria-label="How many words"
        />
        words</label
      >
      <label v-else-if="rule.what.kind === 'through'" class="text-soft"
        >through
        <input
          v-model="rule.what.sign"
          maxlength="10"
          class="field !min-h-[26px] w-[56px] !py-0 text-ink"
          aria-label="Through which sign"
      /></label>
      <input
        v-else-if="rule.what.kind === 'pattern'"
        v-model="rule.what.pattern"
        class="field !min-h-[26px] w-[150px] !py-0 font-mono text-[13px]"
        aria-label="The pattern at the start"
      />
      <label class="flex items-center gap-1.5 text-soft"
        >takes
        <Choice
          v-model="rule.character"
          aria-label="Character style that it takes"
          class="!min-h-[26px] max-w-[150px] !py-0 text-ink"
        >
          <option value="">choose a style</option>
          <option v-for="each in characters" :key="each.name" :value="each.name">{{ each.displayName }}</option>
        </Choice></label
      >
      <label class="flex items-center gap-1.5"><input v-model="rule.on" type="checkbox" /> on</label>
      <button type="button" class="link" @click="remove(rule.id)">Remove</button>
    </fieldset>
    <Choice
      class="mt-2"
      aria-label="Add an opening"
      :model-value="''"
      @update:model-value="addLeadIn(openings.find(each => each.title === $event)!)"
    >
      <option value="">Add an opening …</option>
      <option v-for="each in openings" :key="each.title" :value="each.title">{{ each.title }}</option>
    </Choice>

    <section v-if="current" class="mt-5" aria-live="polite">
      <h2>What “{{ current.title }}” takes</h2>
      <p v-if="found?.message" class="text-rubric">{{ found.message }}</p>
      <template v-else-if="found">
        <p>
          {{
            found.places.length === 0
              ? 'Nothing yet.'
              : `${counted(found.places.length, 'place')}${found.more ? ' and more' : ''}, lit up on the sheets.`
          }}
          <button v-if="found.places.length > 0" type="button" class="link" @click="walk">Walk through them</button>
        </p>
        <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
          <span v-for="(place, index) in found.places.slice(0, 30)" :key="index" class="border-b-2 border-ochre">{{
            place.text
          }}</span>
        </p>
      </template>
    </section>
  </div>
</template>
