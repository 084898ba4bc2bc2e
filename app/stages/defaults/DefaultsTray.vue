<script setup lang="ts">
import type { StartKind } from '~~/core/document/rules'
import type { StartSummary } from '~~/core/change/defaults/start-list'
import { plainLength, plainNumber } from '~~/core/style/describe'
import { useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import PlanPanel from '../../change/PlanPanel.vue'
import StartForm from './StartForm.vue'
import Term from '../../kit/Term.vue'

/** What new text begins with, kind by kind, for this document. */
const desk = useDesk()
const library = useLibrary()
const styles = useStyles()
const words = useWords()
const starts = shallowRef<readonly StartSummary[]>([])
const open = ref<StartKind | null>(null)
const titles: Record<StartKind, string> = {
  body: 'Body text',
  frame: 'Text frame',
  shape: 'Shape label',
  title: 'Title',
  outline1: 'Outline, level 1',
  outline2: 'Outline, level 2',
  outline3: 'Outline, level 3',
  outline4: 'Outline, level 4',
  outline5: 'Outline, level 5',
  cell: 'Table cell',
  note: 'Note',
  header: 'Header, footer',
}

async function look(): Promise<void> {
  if (desk.engine && desk.state === 'open') starts.value = await desk.engine.ask('starts', {}).catch(() => starts.value)
}
watch(() => [desk.state, desk.census] as const, look, { immediate: true })

/** The face that most text of the document is in: what a start that names an absent one may begin with instead. */
const usual = computed(
  () =>
    [...(desk.census?.faces ?? [])].find(face => face.status === 'present' && face.slot === 'western' && !face.symbols)
      ?.family ?? null,
)
const strange = (start: StartSummary) => start.status === 'absent' || start.status === 'unnamed'
function mend(): void {
  if (!usual.value) return
  const wrong = starts.value.filter(strange)
  // What was not set goes by the document's default: mending that mends all of it.
  const kinds = new Set(
    wrong.map(start =>
      start.set || start.kind === 'shape' || start.live
        ? start.kind
        : starts.value.some(each => each.kind === 'body')
          ? ('body' as const)
          : start.kind,
    ),
  )
  void styles.propose(
    [...kinds].map(kind => ({
      type: 'start' as const,
      kind,
      values: { fonts: { western: { family: usual.value! } } },
    })),
  )
}
const example = computed(() => words.spot)
function like(kind: StartKind): void {
  if (example.value)
    void styles.propose([
      { type: 'start-like', kind, part: example.value.part, node: example.value.node, offset: example.value.offset },
    ])
}
const leading = (value: string) => (value === 'normal' ? 'of the face' : plainLength(value))
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
    <template v-else>
      <h1><Term word="defaults">Defaults</Term></h1>
      <p class="text-soft">What new text begins with. Setting it leaves what is there as it looks.</p>
      <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
        {{ styles.message }} <button type="button" class="link ml-2" @click="styles.message = ''">Good</button>
      </p>
      <p v-if="styles.done" role="status" class="mt-2 border border-verdigris bg-sheet p-2">{{ styles.done }}.</p>
      <section
        v-if="starts.some(strange) && usual"
        class="notice mt-3 flex items-center gap-4"
        aria-label="Defaults that are absent"
      >
        <p class="flex-1">
          <strong>New text would begin in a face that is not here:</strong>
          {{ [...new Set(starts.filter(strange).map(start => start.family || 'no face named'))].join(', ') }}. With
          every new object the old font comes back.
        </p>
        <button type="button" class="act shrink-0" @click="mend">Begin with {{ usual }}</button>
      </section>
      <table class="mt-3 table-fixed">
        <colgroup>
          <col class="w-[112px]" />
          <col />
          <col class="w-[112px]" />
          <col class="w-[150px]" />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">New</th>
            <th scope="col">Begins with</th>
            <th scope="col">Leading</th>
            <th scope="col"><span class="sr-only">Set it</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="start in starts" :key="start.kind">
            <tr :class="{ 'bg-wash': open === start.kind }">
              <td>{{ titles[start.kind] }}</td>
              <td
                class="truncate"
                :title="
                  start.live
                    ? 'A default of the document: every program follows it'
                    : start.set
                      ? 'Kept in Morphene’s own part: other programs begin in their own way'
                      : 'As the document’s defaults say'
                "
              >
                <span
                  :class="{ 'text-iris': strange(start) }"
                  :style="{
                    fontFamily: strange(start) ? undefined : library.cssFamily(start.face),
                    color: start.color || undefined,
                  }"
                  ><span v-if="strange(start)"
                    ><span aria-hidden="true">◇ </span><span class="sr-only">absent: </span></span
                  >{{ start.family || 'no face named' }}</span
                >
                {{ plainNumber(start.size) }} pt<span v-if="start.style" class="text-soft">, {{ start.style }}</span
                ><span v-if="start.inset" class="text-soft">, inset {{ plainLength(start.inset) }}</span>
              </td>
              <td class="truncate">{{ leading(start.leading) }}</td>
              <td class="whitespace-nowrap">
                <button
                  type="button"
                  class="link"
                  :aria-expanded="open === start.kind"
                  :aria-label="`Set what a new ${titles[start.kind]} begins with`"
                  @click="open = open === start.kind ? null : start.kind"
                >
                  Set</button
                ><button
                  v-if="example"
                  type="button"
                  class="link ml-3"
                  :aria-label="`Let a new ${titles[start.kind]} begin like the text with the caret`"
                  @click="like(start.kind)"
                >
                  Like the caret
                </button>
              </td>
            </tr>
            <tr v-if="open === start.kind">
              <td colspan="4" class="!py-2"><StartForm :start="start" @plan="styles.propose([$event])" /></td>
            </tr>
          </template>
        </tbody>
      </table>
      <p class="mt-3 text-[13px] text-soft">
        Defaults of OpenDocument itself, which every program follows:
        {{
          starts
            .filter(start => start.live)
            .map(start => titles[start.kind].toLowerCase())
            .join('; ')
        }}. For the others OpenDocument has no default: what is set here is kept in Morphene’s own part, and other
        programs begin in their own way.
      </p>
      <p v-if="!example" class="mt-2 text-[13px] text-soft">
        Put the caret into finished text to let new text begin like it.
      </p>
    </template>
  </div>
</template>
