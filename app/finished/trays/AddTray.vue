<script setup lang="ts">
import { counted } from '../../desk/words'
import { plainNumber } from '~~/core/style/describe'
import { useFinished } from '../../stores/finished'
import { useFinishedEdits } from '../../stores/finished-edits'
import { useWays } from '../../stores/ways'
import ChangeFoot from './ChangeFoot.vue'
import TypeFields from './TypeFields.vue'

/** Text is added to a page, in what the defaults say, so that all that is added is set alike. */
const finished = useFinished()
const edits = useFinishedEdits()
const ways = useWays()
const look = computed(() => finished.trial?.trial.added[0] ?? null)
const sheet = computed(() => (edits.frame ? finished.sheets[edits.frame.page - 1]! : null))
onMounted(async () => {
  await finished.fetchStarts().catch(() => null)
  edits.begin()
})
watch(
  () => edits.addition,
  addition => void edits.tryOut(addition),
)
/** A place to begin with where nobody has pointed at one: near the top left of the page that is looked at. */
function placeByHand(): void {
  edits.frame = { page: finished.page + 1, x: 42.5, y: 42.5, width: 0, height: 0 }
}
function setPlace(key: 'x' | 'y' | 'width' | 'height', event: Event): void {
  const field = event.target as HTMLInputElement
  const length = field.value.trim() === '' ? 0 : ways.read(field.value)
  if (length === null || length < 0) field.value = shown(key)
  else edits.frame = { ...edits.frame!, [key]: length }
}
const shown = (key: 'x' | 'y' | 'width' | 'height') => {
  const value = edits.frame![key]
  return (key === 'width' || key === 'height') && value < 8 ? '' : ways.said(value)
}
const fields = [
  { key: 'x', title: 'From the left' },
  { key: 'y', title: 'From the top' },
  { key: 'width', title: 'Width' },
  { key: 'height', title: 'Height' },
] as const
</script>

<template>
  <h1>Add text</h1>
  <p class="text-soft">
    Press on a page where the text shall begin, or draw a frame for it. It is set in what the defaults say for PDFs.
  </p>
  <form v-if="edits.draft" class="mt-3" @submit.prevent="edits.addition && edits.make(edits.addition)">
    <label class="block text-[13px] text-soft"
      >Text
      <textarea
        v-model="edits.draft.text"
        rows="3"
        maxlength="20000"
        class="field mt-[2px] w-full text-[15px] text-ink"
      />
    </label>
    <fieldset class="mt-3">
      <legend class="font-semibold">Where</legend>
      <p v-if="!edits.frame" class="mt-1">
        No place yet.
        <button type="button" class="link" @click="placeByHand">
          Begin at the top left of page {{ finished.page + 1 }}
        </button>
      </p>
      <div v-else class="mt-1 grid grid-cols-5 gap-3">
        <label class="text-[13px] text-soft"
          >Page<input
            v-typed="edits.frame.page"
            class="field mt-[2px] w-full text-ink"
            inputmode="numeric"
            @change="
              edits.frame = {
                ...edits.frame!,
                page: Math.min(
                  finished.sheets.length,
                  Math.max(1, Number.parseInt(($event.target as HTMLInputElement).value, 10) || 1),
                ),
              }
            "
        /></label>
        <label v-for="each in fields" :key="each.key" class="text-[13px] text-soft"
          >{{ each.title
          }}<input
            v-typed="shown(each.key)"
            class="field mt-[2px] w-full text-ink"
            :placeholder="each.key === 'width' ? 'one line' : each.key === 'height' ? 'to the foot' : ''"
            @change="setPlace(each.key, $event)"
        /></label>
      </div>
    </fieldset>
    <fieldset class="mt-3">
      <legend class="font-semibold">Set in</legend>
      <TypeFields v-model="edits.draft" class="mt-1" />
    </fieldset>
    <p v-if="look" class="mt-3">
      {{ counted(look.lines, 'line') }}, {{ plainNumber(look.width) }} pt wide and {{ plainNumber(look.height) }} pt
      high.
      <span v-if="look.over > 0" class="text-rubric"
        >■ {{ counted(look.over, 'line') }} {{ look.over === 1 ? 'has' : 'have' }} no room.</span
      >
      <span v-else-if="edits.frame && sheet && edits.frame.x + look.width > sheet.width" class="text-rubric"
        >■ It runs off the page.</span
      >
    </p>
    <ChangeFoot />
    <div class="mt-3 flex gap-2">
      <button type="submit" class="act" :disabled="!finished.trial || finished.trying">Add it</button>
      <button type="button" class="plain" :disabled="!edits.frame && edits.draft.text === ''" @click="edits.leave()">
        Leave it
      </button>
    </div>
  </form>
</template>
