<script setup lang="ts">
import { roleTitle } from '~~/core/style/roles'
import { familyName, isTextFamily, styleFamilies, type StyleFamily } from '~~/core/style/families'
import type { StyleSummary } from '~~/core/change/styles/style-list'
import Choice from '../../kit/Choice.vue'
import { counted, grouped, settledWords } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import ChartTextPanel from './ChartTextPanel.vue'
import DrawUpPanel from './DrawUpPanel.vue'
import ImportPanel from './ImportPanel.vue'
import LanguagesPanel from './LanguagesPanel.vue'
import LevelsPanel from './LevelsPanel.vue'
import RulesPanel from './RulesPanel.vue'
import SettlePanel from './SettlePanel.vue'
import StyleActions from './StyleActions.vue'
import StyleEditor from './StyleEditor.vue'
import StyleName from './StyleName.vue'
import PlanPanel from '../../change/PlanPanel.vue'
import TracePanel from './TracePanel.vue'
import Term from '../../kit/Term.vue'
import Chips from '../../kit/Chips.vue'

const desk = useDesk()
const styles = useStyles()
const words = useWords()
const query = ref('')
const sort = ref<'tree' | 'name' | 'use' | 'settled'>('tree')
const only = ref<'all' | 'used' | 'unused' | 'strays'>('all')
const family = ref<StyleFamily>('paragraph')
const titles: Readonly<Record<StyleFamily, string>> = {
  paragraph: 'Paragraphs',
  text: 'Characters',
  presentation: 'Placeholders',
  graphic: 'Frames',
  'table-cell': 'Cells',
}
const field = ref<HTMLInputElement | null>(null)
const hasCharts = computed(() => desk.census?.faces.some(each => each.places.chart > 0))

const shown = computed(() => {
  const wanted = query.value.trim().toLowerCase()
  const list = styles.list.filter(
    style =>
      style.family === family.value &&
      (wanted === '' ||
        style.displayName.toLowerCase().includes(wanted) ||
        roleTitle(style.role ?? '').includes(wanted)) &&
      (only.value === 'all' ||
        (only.value === 'used'
          ? style.paragraphs > 0
          : only.value === 'unused'
            ? style.paragraphs === 0
            : style.settledCharacters < style.characters)),
  )
  const starts = (style: StyleSummary) => (wanted !== '' && style.displayName.toLowerCase().startsWith(wanted) ? 0 : 1)
  const orders: Record<typeof sort.value, (a: StyleSummary, b: StyleSummary) => number> = {
    tree: () => 0,
    name: (a, b) => a.displayName.localeCompare(b.displayName),
    use: (a, b) => b.characters - a.characters,
    settled: (a, b) =>
      (a.characters === 0 ? 2 : a.settledCharacters / a.characters) -
      (b.characters === 0 ? 2 : b.settledCharacters / b.characters),
  }
  return [...list].sort((a, b) => starts(a) - starts(b) || orders[sort.value](a, b))
})
const count = (of: StyleFamily) => styles.list.filter(style => style.family === of).length
/** Sorts of styles that the document has; those of text are always there to be made. */
const families = computed(() =>
  styleFamilies.filter(each => isTextFamily(each) || count(each) > 0).map(id => ({ id, title: titles[id] })),
)
// A deck's text goes by its placeholders: they come first.
watch(
  () => [desk.info?.document.id, styles.list.length > 0] as const,
  () => {
    if (styles.selected) family.value = styles.selected.family
    else if (count('presentation') > 0) family.value = 'presentation'
    else if (count(family.value) === 0) family.value = 'paragraph'
  },
  { immediate: true },
)
// What a plan made, or somebody went to, is shown among its like.
watch(
  () => styles.selected,
  selected => {
    if (selected) family.value = selected.family
  },
)
const share = (style: StyleSummary) =>
  style.characters === 0 ? '' : settledWords(style.settledCharacters / style.characters)

function choose(style: StyleSummary): void {
  const same = styles.selected?.family === style.family && styles.selected.name === style.name
  styles.selected = same ? null : { family: style.family, name: style.name }
}

/** Gives a style to the text that is meant; those of placeholders, frames and cells are not given to text. */
function apply({ family: of, name }: StyleSummary): void {
  if (isTextFamily(of)) void styles.applyStyle({ family: of, name })
}

/** Enter in the search field gives the first style that is found to the text that is meant. */
function applyFirst(): void {
  const [first] = shown.value
  if (first && query.value.trim() !== '') apply(first)
}

watch(
  () => styles.searching,
  () => nextTick(() => field.value?.focus()),
)
onMounted(() => {
  if (styles.searching > 0) field.value?.focus()
})
watch(
  () => [desk.state, desk.generation, desk.census] as const,
  () => {
    if (desk.state === 'open' && !desk.after) void styles.refresh()
  },
  { immediate: true },
)
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <PlanPanel
      v-if="styles.panel === 'plan' && styles.plan"
      id="styles"
      @apply="styles.apply()"
      @leave="styles.leave()"
      @toggle="styles.toggle($event)"
    />
    <StyleEditor v-else-if="styles.panel === 'edit' || styles.panel === 'make'" />
    <SettlePanel v-else-if="styles.panel === 'settle'" />
    <DrawUpPanel v-else-if="styles.panel === 'draw-up'" />
    <LevelsPanel v-else-if="styles.panel === 'levels'" />
    <ChartTextPanel v-else-if="styles.panel === 'charts'" />
    <LanguagesPanel v-else-if="styles.panel === 'languages'" />
    <ImportPanel v-else-if="styles.panel === 'import'" />
    <RulesPanel v-else-if="styles.panel === 'rules'" />
    <template v-else>
      <div class="flex flex-wrap items-baseline gap-x-3">
        <h1>Styles</h1>
        <p v-if="desk.census" class="text-soft">
          {{
            families
              .filter(each => count(each.id) > 0)
              .map(each => counted(count(each.id), familyName(each.id)))
              .join(', ') || 'none yet'
          }}; {{ settledWords(desk.census.settled) }} of the text <Term word="settled">settled</Term>
        </p>
      </div>
      <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
        {{ styles.message }} <button type="button" class="link ml-2" @click="styles.message = ''">Good</button>
      </p>
      <p v-if="styles.done" role="status" class="mt-2 border border-verdigris bg-sheet p-2">{{ styles.done }}.</p>
      <div class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="act" :disabled="!desk.census" @click="styles.panel = 'settle'">
          Settle local formatting
        </button>
        <button type="button" class="act" :disabled="!desk.census" @click="styles.panel = 'draw-up'">
          Draw up styles
        </button>
        <button
          v-if="desk.info?.document.kind === 'presentation'"
          type="button"
          class="plain"
          :disabled="!desk.census"
          @click="styles.panel = 'levels'"
        >
          Levels of the deck
        </button>
        <button v-if="hasCharts" type="button" class="plain" @click="styles.panel = 'charts'">Text of charts</button>
        <button type="button" class="plain" @click="styles.panel = 'make'">New style</button>
        <button type="button" class="plain" @click="styles.panel = 'import'">Styles from elsewhere</button>
        <button type="button" class="plain" @click="styles.panel = 'languages'">Languages</button>
      </div>
      <div class="mt-3 flex flex-wrap items-center gap-2 text-[13px]">
        <Chips v-model="family" label="Which styles" :options="families" />
        <input
          ref="field"
          v-model="query"
          class="field w-[116px]"
          placeholder="Search"
          aria-label="Search styles; Enter applies the first one found"
          title="Alt with S brings you here; Enter applies the first one found"
          @keydown.enter.prevent="applyFirst"
        />
        <label
          ><Choice v-model="only" aria-label="Which styles are shown">
            <option value="all">all of them</option>
            <option value="used">in use</option>
            <option value="unused">unused</option>
            <option value="strays">with strays</option>
          </Choice></label
        >
        <label class="flex items-center gap-1.5 text-soft"
          >by
          <Choice v-model="sort" aria-label="Sort by">
            <option value="tree">parents</option>
            <option value="name">name</option>
            <option value="use">use</option>
            <option value="settled">settled</option>
          </Choice></label
        >
      </div>
      <div class="mt-2 overflow-y-auto" :class="styles.summary || words.spot ? 'max-h-[38vh]' : ''">
        <table class="table-fixed" aria-label="Styles of the document">
          <colgroup>
            <col />
            <col class="w-[86px]" />
            <col class="w-[92px]" />
            <col class="w-[66px]" />
            <col v-if="isTextFamily(family)" class="w-[62px]" />
          </colgroup>
          <thead class="sticky top-0 bg-paper">
            <tr>
              <th scope="col">Style</th>
              <th scope="col"><Term word="role">Role</Term></th>
              <th scope="col" class="number">{{ family === 'text' ? 'Stretches' : 'Paragraphs' }}</th>
              <th scope="col" class="number">Settled</th>
              <th v-if="isTextFamily(family)" scope="col">Key</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="style in shown"
              :key="`${style.family}${style.name}`"
              :class="{ 'bg-wash': styles.summary === style }"
              :data-style="style.name"
            >
              <td
                :style="{
                  paddingLeft: sort === 'tree' && query === '' ? `${Math.min(style.depth, 6) * 14}px` : undefined,
                }"
              >
                <button
                  type="button"
                  class="flex w-full items-baseline gap-2 text-left"
                  :aria-pressed="styles.summary === style"
                  :title="style.sentence"
                  @click="choose(style)"
                  @dblclick="apply(style)"
                >
                  <StyleName :style-of="style" /><span
                    v-if="style.hint"
                    class="shrink-0 text-[12px] text-ochre"
                    :title="`This name ${style.hint}`"
                    >?</span
                  ><span v-if="style.rules > 0" class="shrink-0 text-[12px] text-soft">{{
                    counted(style.rules, 'rule')
                  }}</span
                  ><span v-if="style.templateParts.length > 0" class="truncate text-[12px] text-soft">{{
                    style.templateParts.join(', ')
                  }}</span>
                </button>
              </td>
              <td
                class="truncate"
                :class="style.proposed ? 'text-soft italic' : ''"
                :title="
                  style.proposed && style.role ? `Proposed: ${roleTitle(style.role)}` : roleTitle(style.role ?? '')
                "
              >
                {{ roleTitle(style.role ?? '–') }}
              </td>
              <td class="number" :class="{ 'text-soft': style.paragraphs === 0 }">
                {{ style.paragraphs === 0 ? 'unused' : grouped(style.paragraphs) }}
              </td>
              <td class="number" :class="style.settledCharacters < style.characters ? 'text-ochre' : 'text-soft'">
                {{ share(style) || '–' }}
              </td>
              <td v-if="isTextFamily(family)" class="text-soft">
                {{ styles.pinOf(style) ? `Alt ${styles.pinOf(style)}` : '' }}
              </td>
            </tr>
            <tr v-if="shown.length === 0">
              <td colspan="5" class="text-soft">
                {{
                  count(family) === 0 ? 'This document has no named styles of this sort.' : 'No style answers to that.'
                }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <StyleActions v-if="styles.summary" />
      <TracePanel v-if="words.spot" />
      <p v-else class="mt-4 text-soft">Put the caret into the text to see why it looks as it does.</p>
    </template>
  </div>
</template>
