<script setup lang="ts">
import type { StartSummary } from '~~/core/change/defaults/start-list'
import { setTypeTitle, type SetTypeWish, type TypeTarget } from '~~/core/change/set-type/wish'
import { pairWishes } from '~~/core/change/set-type/pair-wishes'
import PlanPanel from '../../change/PlanPanel.vue'
import { useChange } from '../../change/use-change'
import { useLegibility } from '../../house/use-legibility'
import Choice from '../../kit/Choice.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import { scriptOfLanguage } from '~~/core/font/suits'
import { useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import { useStyles } from '../../stores/styles'
import { useType } from '../../stores/type'
import { useWords } from '../../stores/words'
import FaceList from '../../type/FaceList.vue'
import FaceSearch from '../../type/FaceSearch.vue'
import FaceSpecimen from '../../type/FaceSpecimen.vue'
import FacesTried from './FacesTried.vue'
import KerningPanel from './KerningPanel.vue'
import { useTargets } from './use-targets'

/** A face is chosen for something, with the pages following: what it is set on is said first or last. */
const desk = useDesk()
const type = useType()
const { seen } = useLegibility()
const styles = useStyles()
const words = useWords()
const change = useChange('type')
const starts = shallowRef<readonly StartSummary[]>([])
const targets = useTargets(starts)
const wanted = ref<string | null>(null)
const size = ref<'keep' | 'equal'>('keep')
const list = ref<InstanceType<typeof FaceList> | null>(null)
const panel = ref<'list' | 'specimen' | 'tried' | 'kerning' | 'plan'>('list')
/** Where a plan was made from: leaving it leads back there. */
const from = ref<'list' | 'kerning'>('list')
/** What was asked for last; where that is gone (another selection), what is selected, or the first style. */
const target = computed(() => targets.value.find(each => each.id === wanted.value) ?? targets.value[0] ?? null)
const titleOf = (name: string) => styles.list.find(style => style.name === name)?.displayName ?? name
const wishFor = (family: string, on: TypeTarget): SetTypeWish => ({
  type: 'set-type',
  to: { family },
  on,
  size: size.value,
})
const wish = computed(() => (type.chosen !== null && target.value ? wishFor(type.chosen, target.value.on) : null))

async function refresh(): Promise<void> {
  await styles.refresh()
  if (!desk.engine || desk.state !== 'open') return
  starts.value = await desk.engine.ask('starts', {}).catch(() => starts.value)
  const { library } = useLibrary()
  type.uses = (desk.census?.faces ?? []).flatMap(({ shownBy, characters }) => {
    const face = library?.byHash(shownBy)
    return face ? [{ face, characters }] : []
  })
  const languages = await desk.engine.ask('languages', {}).catch(() => [])
  type.scripts = new Set(languages.flatMap(({ language }) => scriptOfLanguage(language) ?? []))
  type.ofDocument = [
    ...new Set((desk.census?.faces ?? []).filter(face => face.status === 'present').map(face => face.family)),
  ]
}
onMounted(async () => {
  type.chosen = null
  await type.load()
  await refresh()
  await tryPair()
})
onBeforeUnmount(() => {
  type.ofDocument = []
  type.uses = []
  type.sample = ''
  if (type.group === 'document' || type.group === 'suits') type.group = 'all'
})
watch(
  () => desk.census,
  () => void refresh(),
)
// The pages follow whatever face is chosen, for whatever it is to be set on.
watch([() => type.chosen, () => target.value?.id, size], ([family]) => {
  // While it is carried out the document comes anew, and what it could be set on with it: that asks for nothing.
  if (change.busy === 'applying') return
  if (family === null || !target.value) change.hide()
  else {
    type.done = ''
    void change.preview([wishFor(family, target.value.on)])
  }
})
/** Some of the words that the face would be set on, to choose it by. */
async function wordsOf(on: TypeTarget): Promise<string> {
  const { engine } = desk
  if (!engine || desk.state !== 'open') return ''
  if (on.kind === 'style') return engine.ask('styleSample', { family: on.family, name: on.name })
  if (on.kind !== 'ranges') return ''
  const ranges = on.ranges.map(range => ({ ...range, through: false }))
  return (await engine.ask('criteriaAt', { ranges }))?.text ?? ''
}
watch(
  () => target.value?.id,
  async id => {
    const found = target.value ? await wordsOf(target.value.on).catch(() => '') : ''
    if (target.value?.id === id) type.sample = found.replace(/\s+/g, ' ').trim().slice(0, 80)
  },
  { immediate: true },
)
// A selection that is made while this is open is what is meant.
watch(
  () => styles.target?.words,
  () => {
    wanted.value = null
  },
)

/** A pair that somebody tries on this document is planned at once, role by role. */
async function tryPair(): Promise<void> {
  const pair = type.trying
  type.trying = null
  if (!pair) return
  const used = styles.list.filter(style => style.family === 'paragraph' && style.characters > 0)
  const wishes = pairWishes(pair, used)
  if (wishes.length === 0) {
    change.message =
      'No style of this document is a heading or body text. Confirm roles in Styles first. Nothing was changed.'
    return
  }
  if (await change.make(wishes)) showPlan('list')
}

async function set(): Promise<void> {
  if (panel.value === 'plan') {
    const { title } = change.plan!
    const changed = await change.apply()
    if (changed) finished(title, changed.version.number)
    return
  }
  if (!wish.value) return
  const title = setTypeTitle(wish.value, titleOf)
  const changed = await change.apply([wish.value])
  if (changed) finished(title, changed.version.number)
}
function finished(title: string, version: number): void {
  type.done = `${title}: done, as version ${version}.`
  change.message = ''
  change.hide()
  panel.value = from.value
  type.chosen = null
  words.clear()
}
/** The plan that was made is shown with every place. */
function showPlan(made: 'list' | 'kerning'): void {
  from.value = made
  panel.value = 'plan'
  change.show()
}
async function look(): Promise<void> {
  if (wish.value && (await change.make([wish.value]))) showPlan('list')
}
/** Pairs of letters are looked at in place of faces, or faces again. */
function turnTo(to: 'list' | 'kerning'): void {
  change.reset()
  type.chosen = null
  type.done = ''
  panel.value = to
}
function leaveIt(): void {
  change.reset()
  panel.value = from.value
  type.chosen = null
}
</script>

<template>
  <div class="flex h-full min-h-0 flex-col">
    <div v-if="panel === 'plan' && change.plan" class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-6">
      <PlanPanel id="type" @apply="set" @leave="leaveIt" @toggle="change.toggle($event)" />
    </div>
    <template v-else-if="panel === 'kerning'">
      <div class="flex shrink-0 items-baseline gap-4 px-[22px] pt-4 pb-1">
        <h1 class="flex-1">Pairs of letters</h1>
        <button type="button" class="link" @click="turnTo('list')">Back to the faces</button>
      </div>
      <KerningPanel @look="showPlan('kerning')" />
    </template>
    <template v-else>
      <div class="shrink-0 px-[22px] pt-4">
        <div class="flex items-baseline gap-4">
          <h1 class="flex-1">Type</h1>
          <button v-if="panel === 'list'" type="button" class="link" @click="turnTo('kerning')">
            Pairs of letters
          </button>
          <button
            v-if="panel === 'list' && type.compared.length > 0"
            type="button"
            class="link"
            @click="panel = 'tried'"
          >
            Shortlist in this document
          </button>
          <button v-if="panel === 'tried'" type="button" class="link" @click="panel = 'list'">Back to the faces</button>
          <button
            v-if="type.entry && panel !== 'tried'"
            type="button"
            class="link"
            @click="panel = panel === 'list' ? 'specimen' : 'list'"
          >
            {{ panel === 'list' ? `Specimen of ${type.entry.family}` : 'Back to the faces' }}
          </button>
        </div>
        <NoticeLine v-if="change.message" kind="failed">{{ change.message }}</NoticeLine>
        <NoticeLine v-else-if="type.done" kind="done">{{ type.done }}</NoticeLine>
        <div class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-2">
          <Choice
            v-if="target"
            class="min-w-0 flex-1"
            aria-label="What the face is set on"
            :model-value="target.id"
            @update:model-value="wanted = $event"
          >
            <option v-for="each in targets" :key="each.id" :value="each.id">{{ each.title }}</option>
          </Choice>
          <div role="radiogroup" aria-label="Size" class="flex gap-3">
            <label class="flex items-center gap-1.5"
              ><input v-model="size" type="radio" value="keep" /> size stays</label
            >
            <label class="flex items-center gap-1.5"
              ><input v-model="size" type="radio" value="equal" /> as large as before</label
            >
          </div>
        </div>
        <FaceSearch v-if="panel === 'list'" class="mt-3" @down="list?.focus()" />
      </div>
      <div v-if="panel === 'specimen' && type.entry" class="mt-3 min-h-0 flex-1 overflow-y-auto px-[22px]">
        <FaceSpecimen :entry="type.entry" :seen="seen" />
      </div>
      <div v-else-if="panel === 'tried'" class="mt-3 min-h-0 flex-1 overflow-y-auto px-[22px]">
        <FacesTried
          v-model="type.chosen"
          :wish-for="family => (target ? wishFor(family, target.on) : null)"
          :asked="`${target?.id} ${size}`"
        />
      </div>
      <FaceList
        v-else
        ref="list"
        v-model="type.chosen"
        class="mx-[22px] mt-2"
        :entries="type.result.found"
        @enter="set"
      />
      <div class="flex h-[50px] shrink-0 items-center gap-3 border-t border-ink px-[22px]">
        <button
          type="button"
          class="act max-w-[60%] truncate"
          :title="wish ? setTypeTitle(wish, titleOf) : undefined"
          :disabled="!wish || change.busy !== ''"
          @click="set"
        >
          {{ change.busy === 'applying' ? 'Working …' : wish ? setTypeTitle(wish, titleOf) : 'Choose a face' }}
        </button>
        <button type="button" class="plain shrink-0" :disabled="!wish || change.busy !== ''" @click="look">
          See every place
        </button>
        <button v-if="wish" type="button" class="plain shrink-0" @click="leaveIt">Leave it</button>
      </div>
    </template>
  </div>
</template>
