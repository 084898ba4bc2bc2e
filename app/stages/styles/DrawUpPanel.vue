<script setup lang="ts">
import type { ProposedStyle } from '~~/core/change/draw-up/list-proposals'
import type { DrawUpChoice, DrawUpWish } from '~~/core/change/draw-up/wish'
import { roles } from '~~/core/document/rules'
import { familyName } from '~~/core/style/families'
import { roleTitle } from '~~/core/style/roles'
import Choice from '../../kit/Choice.vue'
import Term from '../../kit/Term.vue'
import { counted, settledWords } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import StyleName from './StyleName.vue'

/** What drawing up would make, before anything is planned: each style may be renamed, merged, or left by hand. */
const desk = useDesk()
const styles = useStyles()
const tolerance = ref(0.25)
const headings = ref<DrawUpWish['headings']>('unlabelled')
const sweep = ref(false)
const proposed = shallowRef<readonly ProposedStyle[] | null>(null)
const said = ref('')

/** Where the text of a voice goes in place of a style of its own. */
type Target = { readonly kind: 'hand' } | NonNullable<DrawUpChoice['into']>
/** What was chosen for a voice, and what its style was called. */
interface Chosen {
  readonly family: ProposedStyle['family']
  readonly voice: string
  readonly title: string
  readonly name?: string
  readonly role?: (typeof roles)[number] | ''
  readonly to?: Target
}
const chosen = ref<Record<string, Chosen>>({})
const keyOf = ({ family, voice }: Pick<ProposedStyle, 'family' | 'voice'>) => JSON.stringify([family, voice])
function choose(style: ProposedStyle, values: Partial<Chosen>): void {
  const { family, voice, displayName: title } = style
  chosen.value = { ...chosen.value, [keyOf(style)]: { family, voice, title, ...chosen.value[keyOf(style)], ...values } }
}
const elsewhere = computed(() =>
  Object.values(chosen.value).filter((each): each is Chosen & { to: Target } => each.to !== undefined),
)
const dropped = computed(() =>
  elsewhere.value.filter(({ to }) => to.kind === 'hand').map(({ family, voice }) => ({ family, voice })),
)
const choices = computed((): DrawUpChoice[] =>
  Object.values(chosen.value).flatMap(({ family, voice, name, role, to }): DrawUpChoice[] => {
    if (to?.kind === 'hand') return []
    return [
      {
        family,
        voice,
        ...(name?.trim() ? { name: name.trim() } : {}),
        ...(role === undefined ? {} : { role: role || null }),
        ...(to === undefined ? {} : { into: to }),
      },
    ]
  }),
)
/** A text has styles of paragraphs and words; decks and drawings have those of their frames and of the cells of tables. */
const isText = computed(() => desk.info?.document.kind === 'text')
const families = computed((): readonly ProposedStyle['family'][] =>
  isText.value ? ['paragraph', 'text'] : ['graphic', 'table-cell'],
)
/** What stays by hand is told below the list. */
const listed = computed(() => (proposed.value ?? []).filter(each => chosen.value[keyOf(each)]?.to?.kind !== 'hand'))
/** Where the text of a style may go, each with what it is called in the choice. */
function targets(style: ProposedStyle): { readonly key: string; readonly says: string; readonly to: Target }[] {
  const others = listed.value.filter(each => each.family === style.family && !each.exists && each.voice !== style.voice)
  const named = styles.list.filter(each => each.family === style.family && each.characters > 0)
  const list: { says: string; to: Target }[] = [
    { says: 'stays by hand', to: { kind: 'hand' } },
    ...(style.family === 'text'
      ? []
      : [
          ...others.map(({ displayName, voice }) => ({
            says: `with ${displayName}`,
            to: { kind: 'voice' as const, voice },
          })),
          ...named.map(({ displayName, name }) => ({
            says: `to ${displayName}`,
            to: { kind: 'style' as const, name },
          })),
        ]),
  ]
  return list.map(each => ({ ...each, key: JSON.stringify(each.to) }))
}

let asked = 0
async function refresh(): Promise<void> {
  const own = ++asked
  said.value = ''
  try {
    const list = await desk.engine!.ask('drawUp', {
      tolerance: tolerance.value,
      choices: JSON.parse(JSON.stringify(choices.value)) as DrawUpChoice[],
      dropped: JSON.parse(JSON.stringify(dropped.value)) as typeof dropped.value,
    })
    if (own === asked) proposed.value = list
  } catch (error) {
    if (own === asked) said.value = error instanceof Error ? error.message : String(error)
  }
}
watch([tolerance, () => JSON.stringify(elsewhere.value)], refresh, { immediate: true })

function send(style: ProposedStyle, key: string): void {
  const to = targets(style).find(each => each.key === key)?.to
  if (to) choose(style, { to })
}
function back(each: Chosen): void {
  const { to: _, ...rest } = each
  chosen.value = { ...chosen.value, [keyOf(each)]: rest }
}
const elsewhereWords = ({ family, to }: Chosen & { readonly to: Target }): string => {
  if (to.kind === 'hand') return 'stays as it is set by hand'
  const title =
    to.kind === 'voice'
      ? proposed.value?.find(each => each.family === family && each.voice === to.voice)?.displayName
      : styles.list.find(each => each.family === family && each.name === to.name)?.displayName
  return `goes to ${title ?? 'another style'}`
}
/** How many styles would be made, of each family that is proposed any; of the first in any case. */
const made = computed(() =>
  families.value
    .map(family => ({ family, count: listed.value.filter(each => each.family === family && !each.exists).length }))
    .filter(({ count }, at) => at === 0 || count > 0),
)
const madeWords = computed(() => made.value.map(({ family, count }) => counted(count, familyName(family))).join(', '))

function show(): void {
  const wish: DrawUpWish = {
    type: 'draw-up',
    tolerance: tolerance.value,
    headings: headings.value,
    sweep: sweep.value,
    choices: choices.value,
  }
  void styles.propose(
    [wish],
    dropped.value.map(each => ({ what: 'drawn style', ...each })),
  )
}
const percent = (share: number) => (share < 0.005 ? 'under 1 %' : `${Math.round(share * 100)} %`)
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1"><Term word="drawUp">Draw up</Term> styles</h1>
    <p class="text-soft">
      {{
        isText
          ? 'The styles that this document lacks, made from its voices.'
          : 'The styles that loose frames and tables lack, made from their voices. Placeholders go by their levels.'
      }}
      It looks the same;
      <template v-if="desk.census">{{ settledWords(desk.census.settled) }} of its text is settled now.</template>
    </p>
    <p v-if="said || styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ said || styles.message }}
    </p>
    <div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label class="flex items-center gap-1.5"
        >Voices as one
        <Choice v-model="tolerance" aria-label="How much sizes may differ in voices that become one style">
          <option :value="0">only where they are the same</option>
          <option :value="0.25">within 0.25 pt</option>
          <option :value="0.5">within 0.5 pt</option>
          <option :value="1">within 1 pt</option>
        </Choice></label
      >
      <label v-if="isText" class="flex items-center gap-1.5"
        >Headings
        <Choice v-model="headings" aria-label="Which paragraphs that look like headings become headings">
          <option value="unlabelled">where no number would appear</option>
          <option value="all">all that look so</option>
          <option value="none">none</option>
        </Choice></label
      >
      <label class="flex items-center gap-2"
        ><input v-model="sweep" type="checkbox" /> drop styles that nothing uses after it</label
      >
    </div>
    <p v-if="proposed === null && !said" class="mt-4 text-soft" role="status">Looking at every voice …</p>
    <template v-else-if="proposed">
      <p v-if="listed.length === 0 && elsewhere.length === 0" class="mt-4" role="status">
        {{
          isText
            ? 'Every text looks as its named styles say: there is nothing to draw up.'
            : 'Text in loose frames and in tables looks as its styles say: there is nothing to draw up.'
        }}
      </p>
      <template v-else>
        <div role="status" class="mt-4">
          <h2>{{ madeWords }}</h2>
        </div>
        <ul class="mt-1 border-t border-ink" aria-label="Proposed styles">
          <li
            v-for="style in listed"
            :key="keyOf(style)"
            class="grid grid-cols-[minmax(0,1fr)_122px_150px] gap-x-2 border-b border-rule py-1.5"
          >
            <span v-if="style.exists" class="self-center truncate font-medium">{{ style.displayName }}</span>
            <input
              v-else
              v-typed="chosen[keyOf(style)]?.name ?? style.displayName"
              class="field min-w-0"
              maxlength="200"
              :aria-label="`Name of the ${familyName(style.family)} ${style.displayName}`"
              @change="choose(style, { name: ($event.target as HTMLInputElement).value })"
            />
            <Choice
              v-if="style.family !== 'text' && !style.exists"
              :model-value="chosen[keyOf(style)]?.role ?? style.role ?? ''"
              :aria-label="`Role of ${style.displayName}`"
              @update:model-value="choose(style, { role: $event as (typeof roles)[number] | '' })"
            >
              <option value="">no role</option>
              <option v-for="role in roles" :key="role" :value="role">{{ roleTitle(role) }}</option>
            </Choice>
            <span v-else class="self-center text-[13px] text-soft">{{
              style.exists ? 'is there already' : 'words'
            }}</span>
            <Choice
              model-value="own"
              :aria-label="`Where the text of ${style.displayName} goes`"
              @update:model-value="send(style, String($event))"
            >
              <option value="own">{{ style.exists ? 'takes this style' : 'its own style' }}</option>
              <option v-for="each in targets(style)" :key="each.key" :value="each.key">{{ each.says }}</option>
            </Choice>
            <button
              type="button"
              class="col-span-3 mt-1 flex min-w-0 items-baseline gap-2 text-left"
              :title="`${style.words}. Walk its places`"
              @click="desk.walkThrough(style.places)"
            >
              <StyleName class="flex-1" :style-of="style" :words="style.sample || style.displayName" />
              <span class="shrink-0 text-[13px] text-soft"
                >{{
                  counted(
                    style.count,
                    { text: 'stretch', paragraph: 'paragraph', graphic: 'frame', 'table-cell': 'cell' }[style.family],
                    style.family === 'text' ? 'stretches' : undefined,
                  )
                }}, {{ percent(style.share) }}</span
              >
            </button>
          </li>
        </ul>
        <ul v-if="elsewhere.length > 0" class="mt-3 text-[13px]" aria-label="Voices that go elsewhere">
          <li v-for="each in elsewhere" :key="keyOf(each)">
            {{ each.title }} {{ elsewhereWords(each) }}.
            <button type="button" class="link" @click="back(each)">A style of its own after all</button>
          </li>
        </ul>
        <button type="button" class="act mt-4" :disabled="styles.busy" @click="show">
          {{
            styles.busy
              ? 'Planning …'
              : `Show the plan of ${counted(
                  made.reduce((sum, each) => sum + each.count, 0),
                  'style',
                )}`
          }}
        </button>
      </template>
    </template>
  </div>
</template>
