<script setup lang="ts">
import {
  cleanUpEdits,
  type CleanUp,
  type CleanUpKind,
  type CleanUpPlace,
  type CleanUpWish,
} from '~~/core/change/clean-up/clean-up'
import { counted } from '../../desk/words'
import { sentenceOf, useDesk } from '../../stores/desk'
import { useWords } from '../../stores/words'

/** Puts the words in order, after a look at every place. */
const desk = useDesk()
const words = useWords()
const kinds: readonly { readonly id: CleanUpKind; readonly title: string; readonly what: string }[] = [
  { id: 'emptyParagraphs', title: 'Double returns', what: 'empty paragraph' },
  { id: 'doubleSpaces', title: 'Double spaces', what: 'run of spaces' },
  { id: 'edgeSpaces', title: 'Spaces at ends', what: 'spaces at an end' },
  { id: 'tabIndents', title: 'Tabs used as indents', what: 'tab at a beginning' },
  { id: 'straightQuotes', title: 'Straight quotes', what: 'straight quote' },
]
const wish = ref<CleanUpWish>({
  emptyParagraphs: true,
  doubleSpaces: true,
  edgeSpaces: true,
  tabIndents: false,
  straightQuotes: true,
})
const found = shallowRef<CleanUp | null>(null)
const struck = ref(new Set<string>())
const shown = ref(40)
const done = ref('')
const kept = computed(() => found.value?.places.filter(place => !struck.value.has(place.id)) ?? [])
const countOf = (kind: CleanUpKind) => found.value?.places.filter(place => place.kind === kind).length ?? 0

async function look(): Promise<void> {
  done.value = ''
  await words.flush()
  struck.value = new Set()
  shown.value = 40
  found.value = await desk.engine!.ask('cleanUp', { wish: { ...wish.value } })
}

function toggle(place: CleanUpPlace): void {
  const next = new Set(struck.value)
  if (!next.delete(place.id)) next.add(place.id)
  struck.value = next
}

async function walk(place: CleanUpPlace): Promise<void> {
  await words.selectRange(
    { part: place.part, node: place.node, offset: place.from },
    { part: place.part, node: place.node, offset: place.to },
  )
  await words.reveal()
}

async function apply(): Promise<void> {
  const { length } = kept.value
  try {
    if (await words.edit(cleanUpEdits(kept.value), () => null)) {
      await words.flush()
      found.value = null
      words.clear()
      done.value = `${counted(length, 'place')} put in order. Undo takes all of them back.`
    }
  } catch (error) {
    done.value = sentenceOf(error)
  }
}
const signs = (text: string) => text.replace(/ /g, '␣').replace(/\t/g, '⇥')
const titleOf = (kind: CleanUpKind) => kinds.find(each => each.id === kind)!.title
</script>

<template>
  <section class="mt-7" aria-labelledby="clean-up">
    <h2 id="clean-up">Put the words in order</h2>
    <div class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
      <label v-for="kind in kinds" :key="kind.id" class="flex items-center gap-2"
        ><input v-model="wish[kind.id]" type="checkbox" class="size-[15px] accent-verdigris" @change="found = null" />{{
          kind.title
        }}<span v-if="found && wish[kind.id]" class="text-soft tabular-nums">{{ countOf(kind.id) }}</span></label
      >
    </div>
    <div class="mt-3 flex items-center gap-3">
      <button type="button" class="plain" @click="look">Look for them</button>
      <button
        v-if="found && found.places.length > 0"
        type="button"
        class="act"
        :disabled="kept.length === 0"
        @click="apply"
      >
        Put {{ counted(kept.length, 'place') }} in order
      </button>
      <span v-if="done" role="status">{{ done }}</span>
      <span v-else-if="found && found.places.length === 0" class="text-soft" role="status"
        >Nothing of the kind is in this document.</span
      >
    </div>
    <p v-if="found?.more" class="mt-2 text-[13px] text-ochre">
      There are more: put these {{ counted(found.places.length, 'place') }} in order, then look again.
    </p>
    <p v-for="each in found?.left ?? []" :key="each.reason" class="mt-2 text-[13px] text-ochre">
      {{ counted(each.count, 'place') }} left alone: {{ each.reason.replace(' Nothing was changed.', '') }}
    </p>
    <table v-if="found && found.places.length > 0" class="mt-2 table-fixed">
      <colgroup>
        <col class="w-[30px]" />
        <col class="w-[150px]" />
        <col />
        <col class="w-[56px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">Taken</span></th>
          <th scope="col">What</th>
          <th scope="col">Where</th>
          <th scope="col"><span class="sr-only">Walk</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="place in found.places.slice(0, shown)"
          :key="place.id"
          :class="{ 'text-soft line-through': struck.has(place.id) }"
        >
          <td>
            <input
              type="checkbox"
              class="size-[15px] accent-verdigris"
              :checked="!struck.has(place.id)"
              :aria-label="`${titleOf(place.kind)} at ${place.near}`"
              @change="toggle(place)"
            />
          </td>
          <td class="truncate">
            {{ titleOf(place.kind)
            }}<template v-if="place.kind !== 'emptyParagraphs'"
              ><span class="ml-2 text-verdigris"
                >{{ signs(place.before) }} → {{ place.after === '' ? 'nothing' : signs(place.after) }}</span
              ></template
            >
          </td>
          <td class="truncate text-soft" :title="place.near">
            {{
              place.kind === 'emptyParagraphs'
                ? place.near === ''
                  ? 'after another empty one'
                  : `after “… ${place.near}”`
                : `“${signs(place.near)}”`
            }}
          </td>
          <td><button type="button" class="link" @click="walk(place)">Show</button></td>
        </tr>
      </tbody>
    </table>
    <button v-if="found && found.places.length > shown" type="button" class="link mt-2" @click="shown += 200">
      Show more of {{ counted(found.places.length, 'place') }}
    </button>
  </section>
</template>
