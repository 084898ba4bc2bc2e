<script setup lang="ts">
import Choice from '../../kit/Choice.vue'
import { useStages } from '../../desk/stages'
import { useSwap } from '../../stores/swap'
import { useStyles } from '../../stores/styles'
import type { FaceCensus, VoiceCensus } from '~~/core/census/census'
import { faceName } from '~~/core/font/face'
import { sizeAndLeading } from '~~/core/census/voices'
import type { Wish } from '~~/core/change/registry'
import { meantGroups, typeGroups } from '~~/core/style/groups'
import { useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import { counted, grouped, pageWords, percentage, settledWords } from '../../desk/words'
import { useLegibility } from '../../house/use-legibility'
import Term from '../../kit/Term.vue'
import ChosenVoice from './ChosenVoice.vue'

/** Drawing charts is a large part of the code: it comes when a census is shown, and is not waited for. */
const FaceChart = defineAsyncComponent(() => import('./FaceChart.vue'))

const stages = useStages()
const swap = useSwap()
const styles = useStyles()
/** From the census to a plan for styles. */
async function plan(wishes: Wish[]): Promise<void> {
  stages.go('styles')
  await nextTick()
  await styles.propose(wishes)
}
function swapFamily(family: string): void {
  swap.begin(family)
  stages.go('swap')
}
const desk = useDesk()
const library = useLibrary()
const census = computed(() => desk.census!)

type Order = 'characters' | 'name' | 'page'
const filter = ref('')
const order = ref<Order>('characters')
const only = ref<'all' | 'absent' | 'unowned'>('all')

const slotWord = (slot: string) => (slot === 'western' ? '' : slot === 'asian' ? 'East Asian text' : 'complex scripts')
const matches = (text: string) => text.toLowerCase().includes(filter.value.trim().toLowerCase())

function sorted<T extends FaceCensus | VoiceCensus>(list: readonly T[]): T[] {
  const by = [...list]
  if (order.value === 'name') by.sort((a, b) => `${a.family} ${a.style}`.localeCompare(`${b.family} ${b.style}`))
  if (order.value === 'page') by.sort((a, b) => (a.pages[0] ?? 1e9) - (b.pages[0] ?? 1e9))
  return by
}
const faces = computed(() =>
  sorted(
    census.value.faces.filter(
      face =>
        matches(`${face.family} ${face.style} ${face.styles.join(' ')}`) &&
        (only.value === 'all' || (only.value === 'absent' ? face.status === 'absent' : face.strayCharacters > 0)),
    ),
  ),
)
const voices = computed(() =>
  sorted(
    census.value.voices.filter(
      voice =>
        matches(`${voice.family} ${voice.style} ${voice.styles.join(' ')}`) &&
        (only.value === 'all' || (only.value === 'absent' ? voice.status === 'absent' : voice.unowned)),
    ),
  ),
)
const shownVoices = ref(12)
const absent = computed(() => census.value.faces.filter(face => face.status === 'absent'))
const overset = computed(() => census.value.frames.filter(frame => frame.lines > 0))
const unowned = computed(() => census.value.voices.filter(voice => voice.unowned).length)
const chosenFace = computed(() =>
  desk.chosen?.of === 'face' ? (census.value.faces.find(face => face.key === desk.chosen!.key) ?? null) : null,
)
const notice = computed(() => (chosenFace.value?.status === 'absent' ? chosenFace.value : (absent.value[0] ?? null)))

function ownership(face: FaceCensus): string {
  if (face.onlySpaces) return face.characters === 1 ? 'one space' : `${grouped(face.characters)} spaces`
  const strays = face.strayCharacters > 0 ? `${grouped(face.strayCharacters)} by hand` : ''
  const styles = face.strayCharacters < face.characters ? face.styles.slice(0, 2).join(', ') : ''
  return [styles, strays].filter(Boolean).join(', ')
}

const chosenVoice = computed(() =>
  desk.chosen?.of === 'voice' ? (census.value.voices.find(each => each.key === desk.chosen!.key) ?? null) : null,
)
const twin = computed(() =>
  chosenVoice.value?.twinOf ? (census.value.voices.find(each => each.key === chosenVoice.value!.twinOf) ?? null) : null,
)
const legible = useLegibility()
/** All of it stands in speaker notes, which nobody sees on a slide. */
const inNotes = ({ places }: VoiceCensus): boolean =>
  places.note > 0 && Object.entries(places).every(([place, count]) => place === 'note' || count === 0)
const seenIn = (voice: VoiceCensus) => legible.seen(voice.size, voice.shownBy, inNotes(voice))
const tooSmall = (voice: VoiceCensus): string => {
  if (seenIn(voice)?.enough !== false) return ''
  return legible.medium.value === 'deck' && !inNotes(voice) ? 'small from the last row' : 'small at 40 cm'
}
/** From where it is read, and whether it is large enough for that; absent faces are measured on what stands in. */
const seenVoice = computed(() => (chosenVoice.value ? seenIn(chosenVoice.value) : null))
/** What else is to be said of a voice. */
const remarks = (voice: VoiceCensus): string =>
  [
    tooSmall(voice),
    voice.unowned ? `in ${voice.styles[0]}` : '',
    voice.case,
    voice.tracking ? `tracked ${voice.tracking}` : '',
    voice.position ? 'raised or lowered' : '',
  ]
    .filter(Boolean)
    .join(', ')

async function toggle(of: 'face' | 'voice', key: string): Promise<void> {
  const same = desk.chosen?.of === of && desk.chosen.key === key
  await desk.choose(of, same ? null : key)
  if (!same) desk.walk(1)
}

async function walkFace(face: FaceCensus): Promise<void> {
  if (desk.chosen?.key !== face.key) await desk.choose('face', face.key)
  desk.walk(1)
}

// A click on the sheets shows the voice of what was clicked.
watch(
  () => desk.pointed,
  pointed => {
    if (!pointed) return
    const index = voices.value.findIndex(voice => voice.key === pointed.voice)
    if (index >= shownVoices.value) shownVoices.value = index + 1
    nextTick(() =>
      document
        .querySelector(`[data-voice="${CSS.escape(pointed.voice)}"]`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
    )
  },
)
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <h1>{{ settledWords(census.settled) }} <Term word="settled">settled</Term></h1>
      <button
        v-if="census.settled < 1"
        type="button"
        class="link"
        @click="
          plan([
            {
              type: 'settle',
              scope: { kind: 'document' },
              groups: [...typeGroups],
              keep: [...meantGroups],
              idleOnly: false,
            },
          ])
        "
      >
        Settle it
      </button>
      <p class="text-soft">
        {{ counted(census.characters, 'character') }}, {{ counted(census.faces.length, 'face') }},
        {{ counted(census.voices.length, 'voice') }}, {{ unowned }} of them nobody’s
      </p>
    </div>
    <div class="my-2 h-[22px]">
      <FaceChart :faces="census.faces" @choose="toggle('face', $event)" />
    </div>
    <div class="flex flex-wrap items-center gap-2 text-[13px]">
      <input
        v-model="filter"
        class="field w-[150px]"
        placeholder="Filter by name"
        aria-label="Filter faces and voices by family or style"
      />
      <label class="flex items-center gap-1.5 text-soft"
        >Show
        <Choice v-model="only">
          <option value="all">all</option>
          <option value="absent">absent faces</option>
          <option value="unowned">set by hand</option>
        </Choice>
      </label>
      <label class="flex items-center gap-1.5 text-soft"
        >Sort by
        <Choice v-model="order">
          <option value="characters">characters</option>
          <option value="name">name</option>
          <option value="page">first page</option>
        </Choice>
      </label>
    </div>
    <div class="tray-table mt-2">
      <table class="faces-table table-fixed">
        <colgroup>
          <col />
          <col />
          <col />
          <col />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Face</th>
            <th scope="col" class="number">Characters</th>
            <th scope="col" class="number">Share</th>
            <th scope="col">Pages</th>
            <th scope="col">In styles</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="face in faces" :key="face.key" :class="{ 'bg-wash': desk.chosen?.key === face.key }">
            <td>
              <button
                type="button"
                class="block w-full truncate text-left"
                :class="{ 'text-iris': face.status === 'absent' }"
                :aria-pressed="desk.chosen?.key === face.key"
                :title="`${faceName(face.family, face.style)}: ${face.reason}`"
                @click="toggle('face', face.key)"
              >
                <span v-if="face.status === 'absent'"
                  ><span aria-hidden="true">◇ </span><span class="sr-only">absent: </span></span
                >
                <span
                  :style="{ fontFamily: face.status === 'present' ? library.cssFamily(face.shownBy) : undefined }"
                  >{{ faceName(face.family, face.style) }}</span
                >
                <span v-if="slotWord(face.slot)" class="text-[12px] text-soft"> {{ slotWord(face.slot) }}</span>
              </button>
            </td>
            <td class="number">{{ grouped(face.characters) }}</td>
            <td class="number">{{ percentage(face.share) }}</td>
            <td class="truncate" :title="pageWords(face.pages, census.document.pages)">
              {{ pageWords(face.pages, census.document.pages) }}
            </td>
            <td
              class="truncate"
              :class="{ 'text-ochre': face.strayCharacters > 0 || face.onlySpaces }"
              :title="
                [...face.styles, face.strayCharacters > 0 ? `${grouped(face.strayCharacters)} by hand` : '']
                  .filter(Boolean)
                  .join(', ')
              "
            >
              {{ ownership(face) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="faces.length === 0" class="py-2 text-soft">No face answers to that.</p>

    <section v-if="notice" class="notice mt-4 flex items-center gap-4" aria-label="Absent face">
      <p class="flex-1">
        <strong>{{ faceName(notice.family, notice.style) }} is absent.</strong>
        {{ notice.onlySpaces ? counted(notice.characters, 'space') : counted(notice.characters, 'character') }} shown in
        {{ notice.standIn }}.
        <span class="block text-soft"
          >The file still says {{ notice.family }}, and is right again where {{ notice.family }} is installed.</span
        >
      </p>
      <button type="button" class="plain shrink-0" @click="walkFace(notice)">Walk its places</button>
      <button type="button" class="act shrink-0" @click="swapFamily(notice.family)">Swap it</button>
    </section>

    <section
      v-if="overset.length > 0"
      class="mt-4 border border-rubric bg-sheet px-3 py-2.5"
      aria-label="Frames that run over"
    >
      <p v-for="frame in overset.slice(0, 5)" :key="frame.name" class="flex items-baseline gap-3">
        <span class="flex-1"
          ><strong>{{ frame.name || 'A frame' }} runs over:</strong> {{ counted(frame.lines, 'line') }},
          {{ counted(frame.characters, 'character') }} have no room.</span
        >
        <button v-if="frame.page !== null" type="button" class="link" @click="desk.show('pages', frame.page)">
          Page {{ frame.page + 1 }}
        </button>
      </p>
      <p v-if="overset.length > 5" class="text-soft">And {{ overset.length - 5 }} more.</p>
    </section>

    <ChosenVoice v-if="chosenVoice" :voice="chosenVoice" :twin="twin" :seen="seenVoice" @plan="plan" />

    <h2 class="mt-5"><Term word="voice">Voices</Term></h2>
    <div class="tray-table mt-1">
      <table class="voices-table table-fixed">
        <colgroup>
          <col />
          <col />
          <col />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Voice</th>
            <th scope="col" class="number">Characters</th>
            <th scope="col">Style</th>
            <th scope="col">State</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="voice in voices.slice(0, shownVoices)"
            :key="voice.key"
            :data-voice="voice.key"
            :class="{ 'bg-wash': desk.chosen?.key === voice.key || desk.pointed?.voice === voice.key }"
          >
            <td>
              <button
                type="button"
                class="flex w-full items-center truncate text-left"
                :class="{ 'text-iris': voice.status === 'absent' }"
                :aria-pressed="desk.chosen?.key === voice.key"
                @click="toggle('voice', voice.key)"
              >
                <span
                  v-if="voice.twinOf"
                  aria-hidden="true"
                  class="mr-2 h-[18px] w-[5px] shrink-0 border-x-2 border-ochre"
                />
                <span
                  class="truncate"
                  :style="{ fontFamily: voice.status === 'present' ? library.cssFamily(voice.shownBy) : undefined }"
                  >{{ faceName(voice.family, voice.style) }} {{ sizeAndLeading(voice) }}</span
                >
                <span
                  v-if="voice.color"
                  class="ml-2 inline-block size-[10px] shrink-0 border border-soft"
                  :style="{ background: voice.color }"
                  :title="voice.color"
                />
              </button>
            </td>
            <td class="number">{{ grouped(voice.characters) }}</td>
            <td class="truncate" :class="{ 'text-ochre': voice.unowned }" :title="voice.styles.join(', ')">
              {{ voice.unowned ? 'nobody’s' : voice.styles.slice(0, 2).join(', ') }}
            </td>
            <td class="truncate text-soft">
              <Term v-if="voice.twinOf" word="twins">twin of another</Term
              >{{ voice.twinOf && remarks(voice) ? ', ' : '' }}{{ remarks(voice) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="voices.length > shownVoices" type="button" class="link mt-2" @click="shownVoices = voices.length">
      Show all {{ voices.length }} voices
    </button>

    <section v-if="census.unused.length > 0" class="mt-5">
      <h2>Named, not used</h2>
      <p class="text-soft">
        No text is set in these, but styles, defaults or declarations name them: an old font can come back from here.
      </p>
      <table class="mt-1 table-fixed">
        <colgroup>
          <col />
          <col class="w-[86px]" />
          <col class="w-[300px]" />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Family</th>
            <th scope="col" class="number">Mentions</th>
            <th scope="col">In</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="family in census.unused" :key="family.family">
            <td class="truncate">
              <span v-if="family.status === 'absent'" class="text-iris"
                ><span aria-hidden="true">◇ </span><span class="sr-only">absent: </span>{{ family.family }}</span
              ><template v-else>{{ family.family }}</template>
            </td>
            <td class="number">{{ family.references }}</td>
            <td class="truncate text-soft" :title="family.where.join(', ')">
              {{ family.where.length > 0 ? family.where.join(', ') : 'font declarations only' }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <p v-if="census.document.unlaid.length > 0" class="mt-4 text-[13px] text-soft">
      Pages are told without: {{ census.document.unlaid.map(each => `${each.feature}, ${each.count}`).join('; ') }}.
    </p>
    <p v-if="census.pictures.length > 0" class="mt-2 text-[13px] text-soft">
      {{ counted(census.pictures.length, 'vector picture') }} may hold text whose font cannot be read.
    </p>
  </div>
</template>
