<script setup lang="ts">
import type { ProposedStyle } from '~~/core/change/draw-up/list-proposals'
import type { DrawUpChoice, DrawUpWish } from '~~/core/change/draw-up/wish'
import { roles } from '~~/core/document/rules'
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
const names = ref<Record<string, string>>({})
const chosenRoles = ref<Record<string, (typeof roles)[number] | ''>>({})
/** Where the text of a voice goes in place of a style of its own, with what the voice was called. */
const elsewhere = ref<Record<string, { readonly title: string; readonly to: string }>>({})
const said = ref('')

const keyOf = (style: Pick<ProposedStyle, 'family' | 'voice'>) => `${style.family} ${style.voice}`
const splitKey = (key: string) => {
  const [family, voice] = key.split(' ') as [ProposedStyle['family'], string]
  return { family, voice }
}
const dropped = computed(() =>
  Object.entries(elsewhere.value)
    .filter(([, { to }]) => to === 'hand')
    .map(([key]) => splitKey(key)),
)
const choices = computed((): DrawUpChoice[] => {
  const keys = new Set([
    ...Object.keys(names.value),
    ...Object.keys(chosenRoles.value),
    ...Object.keys(elsewhere.value),
  ])
  return [...keys].flatMap((key): DrawUpChoice[] => {
    const to = elsewhere.value[key]?.to ?? ''
    if (to === 'hand') return []
    const name = names.value[key]?.trim()
    const role = chosenRoles.value[key]
    const target = to.slice(to.indexOf(' ') + 1)
    return [
      {
        ...splitKey(key),
        ...(name ? { name } : {}),
        ...(role === undefined ? {} : { role: role || null }),
        ...(to.startsWith('voice ') ? { into: { kind: 'voice' as const, voice: target } } : {}),
        ...(to.startsWith('style ') ? { into: { kind: 'style' as const, name: target } } : {}),
      },
    ]
  })
})
const named = computed(() => styles.list.filter(style => style.family === 'paragraph' && style.characters > 0))
/** What stays by hand is told below the list. */
const listed = computed(() => (proposed.value ?? []).filter(each => elsewhere.value[keyOf(each)]?.to !== 'hand'))
const others = (style: ProposedStyle) =>
  listed.value.filter(each => each.family === 'paragraph' && !each.exists && each.voice !== style.voice)

let asked = 0
async function refresh(): Promise<void> {
  const own = ++asked
  said.value = ''
  try {
    const list = await desk.engine!.ask('drawUp', {
      tolerance: tolerance.value,
      choices: JSON.parse(JSON.stringify(choices.value)) as DrawUpChoice[],
      dropped: dropped.value.map(each => each.voice),
    })
    if (own === asked) proposed.value = list
  } catch (error) {
    if (own === asked) said.value = error instanceof Error ? error.message : String(error)
  }
}
watch([tolerance, elsewhere], refresh, { immediate: true, deep: true })

function send(style: ProposedStyle, to: string): void {
  const { [keyOf(style)]: _, ...rest } = elsewhere.value
  elsewhere.value = to === 'own' ? rest : { ...rest, [keyOf(style)]: { title: style.displayName, to } }
}
function back(key: string): void {
  const { [key]: _, ...rest } = elsewhere.value
  elsewhere.value = rest
}
const elsewhereWords = ({ to }: { readonly to: string }): string => {
  if (to === 'hand') return 'stays as it is set by hand'
  const target = to.slice(to.indexOf(' ') + 1)
  const title = to.startsWith('voice ')
    ? proposed.value?.find(each => each.voice === target)?.displayName
    : named.value.find(each => each.name === target)?.displayName
  return `goes to ${title ?? 'another style'}`
}
const count = (family: ProposedStyle['family']) =>
  listed.value.filter(each => each.family === family && !each.exists).length

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
      The styles that this document lacks, made from its voices. It looks the same;
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
      <label class="flex items-center gap-1.5"
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
      <p v-if="listed.length === 0 && Object.keys(elsewhere).length === 0" class="mt-4" role="status">
        Every text looks as its named styles say: there is nothing to draw up.
      </p>
      <template v-else>
        <div role="status" class="mt-4">
          <h2>{{ counted(count('paragraph'), 'paragraph style') }}, {{ counted(count('text'), 'character style') }}</h2>
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
              class="field min-w-0"
              :value="names[keyOf(style)] ?? style.displayName"
              maxlength="200"
              :aria-label="`Name of the ${style.family === 'text' ? 'character' : 'paragraph'} style ${style.displayName}`"
              @change="names[keyOf(style)] = ($event.target as HTMLInputElement).value"
            />
            <Choice
              v-if="style.family === 'paragraph' && !style.exists"
              :model-value="chosenRoles[keyOf(style)] ?? style.role ?? ''"
              :aria-label="`Role of ${style.displayName}`"
              @update:model-value="chosenRoles[keyOf(style)] = $event as (typeof roles)[number] | ''"
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
              <option value="hand">stays by hand</option>
              <template v-if="style.family === 'paragraph'">
                <option v-for="other in others(style)" :key="other.voice" :value="`voice ${other.voice}`">
                  with {{ other.displayName }}
                </option>
                <option v-for="other in named" :key="other.name" :value="`style ${other.name}`">
                  to {{ other.displayName }}
                </option>
              </template>
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
                    style.family === 'text' ? 'stretch' : 'paragraph',
                    style.family === 'text' ? 'stretches' : undefined,
                  )
                }}, {{ percent(style.share) }}</span
              >
            </button>
          </li>
        </ul>
        <ul v-if="Object.keys(elsewhere).length > 0" class="mt-3 text-[13px]" aria-label="Voices that go elsewhere">
          <li v-for="(each, key) in elsewhere" :key="key">
            {{ each.title }} {{ elsewhereWords(each) }}.
            <button type="button" class="link" @click="back(String(key))">A style of its own after all</button>
          </li>
        </ul>
        <button type="button" class="act mt-4" :disabled="styles.busy" @click="show">
          {{ styles.busy ? 'Planning …' : `Show the plan of ${counted(count('paragraph') + count('text'), 'style')}` }}
        </button>
      </template>
    </template>
  </div>
</template>
