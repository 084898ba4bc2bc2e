<script setup lang="ts">
import { roleTitle } from '~~/core/style/roles'
import type { DisplayPage } from '~~/core/typeset/display'
import { boundsOf } from '~~/core/typeset/matrix'
import { filler, fillerText } from '~~/core/format/filler'
import { pastePlain } from '~~/core/format/paste'
import Choice from '../../kit/Choice.vue'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useWays } from '../../stores/ways'
import { useWords } from '../../stores/words'

/** Text frames: a new one, and the place, size, columns, insets and chain of the chosen one. */
const desk = useDesk()
const words = useWords()
const ways = useWays()
const styles = useStyles()
const page = shallowRef<DisplayPage | null>(null)
/** A millimetre in points. */
const mm = 72 / 25.4
const text = ref({ columns: 1, gap: ways.said(mm * 5), inset: ways.said(0) })
const script = ref('Latin')
const count = ref(3)
const frame = computed(
  () => page.value?.frames.find(each => each.node === words.frame?.node && each.part === words.frame.part) ?? null,
)
const place = computed(() => {
  if (!frame.value) return null
  const { x, y, width, height, matrix } = frame.value
  const at = matrix ? boundsOf(matrix, { x, y, width, height }) : { x, y }
  return { x: at.x, y: at.y, width, height }
})
const others = shallowRef<readonly { node: number; name: string; story: string }[]>([])
const next = ref('')

async function look(): Promise<void> {
  const drawn = await desk.engine?.ask('page', { side: 'now', view: desk.view, index: desk.page }).catch(() => null)
  page.value = drawn?.page ?? null
  const own = words.frame
  if (!own || !desk.engine) return
  const known = await desk.engine.ask('frame', { part: own.part, node: own.node }).catch(() => null)
  if (!known) {
    words.frame = null
    return
  }
  text.value = {
    columns: known.text.columns,
    gap: ways.said(known.text.gap),
    inset: ways.said(known.text.inset),
  }
  others.value = known.others
  next.value = String(known.others.find(each => each.name === known.text.next)?.node ?? '')
}
watch(() => [desk.page, desk.view, desk.generation, words.frame] as const, look, { immediate: true })

const frameText = () => ({
  columns: Math.max(1, Math.min(Math.round(text.value.columns), 20)),
  gap: Math.max(ways.read(text.value.gap) ?? 0, 0),
  inset: Math.max(ways.read(text.value.inset) ?? 0, 0),
})

async function set(which: 'x' | 'y' | 'width' | 'height', value: string): Promise<void> {
  const length = ways.read(value)
  if (length === null) {
    words.message = `“${value}” is no length. Write for instance 12 mm, 2.5 cm, 1 in or 36 pt. Nothing was changed.`
    return
  }
  if (!frame.value || !place.value) return
  await words.edit(
    [
      {
        type: 'place-frame',
        part: frame.value.part,
        node: frame.value.node,
        from: place.value,
        to: { ...place.value, [which]: length },
      },
    ],
    () => null,
  )
}

async function setText(): Promise<void> {
  if (frame.value)
    await words.edit(
      [{ type: 'frame-text', part: frame.value.part, node: frame.value.node, text: frameText() }],
      () => null,
    )
}

async function add(filling: boolean): Promise<void> {
  const { engine } = desk
  if (!engine || !page.value) return
  const holder = await engine.ask('holder', { view: desk.view, page: desk.page })
  if (!holder) {
    words.message = 'There is nothing on this page that a frame could be put on. Nothing was changed.'
    return
  }
  const { margin, width, height } = page.value
  const inside = {
    x: margin.left,
    y: margin.top,
    width: width - margin.left - margin.right,
    height: height - margin.top - margin.bottom,
  }
  const box = filling
    ? inside
    : { x: inside.x, y: inside.y, width: inside.width / 2, height: Math.min(inside.height / 3, inside.width / 2) }
  await words.edit(
    [{ type: 'add-frame', ...holder, place: box, text: frameText(), ...(await words.newFrameStyle()) }],
    made => {
      if (made !== null) words.frame = { part: holder.part, node: made }
      return null
    },
  )
  await look()
}

async function chain(node: string): Promise<void> {
  if (frame.value)
    await words.edit(
      [{ type: 'chain', part: frame.value.part, node: frame.value.node, next: node === '' ? null : Number(node) }],
      () => null,
    )
}

async function remove(): Promise<void> {
  if (!frame.value) return
  const { part, node } = frame.value
  words.frame = null
  await words.edit([{ type: 'remove-frame', part, node }], () => null)
}

/** Filler goes where the caret is, else into the chosen frame. */
async function fill(): Promise<void> {
  const words_ = fillerText(script.value, count.value)
  const line = frame.value ? page.value?.lines.find(each => insideFrame(each)) : undefined
  const at = words.spot ?? (line ? { part: line.part, node: line.node, offset: line.start } : null)
  if (!at) {
    words.message = 'Put the caret into a text, or choose an empty text frame, then put filler in. Nothing was changed.'
    return
  }
  const { edits, last } = pastePlain(at, words_)
  await words.edit(edits, made =>
    made === null ? { ...at, offset: at.offset + last } : { part: at.part, node: made, offset: last },
  )
}
function insideFrame(line: DisplayPage['lines'][number]): boolean {
  const own = place.value
  if (!own) return false
  const box = line.matrix ? boundsOf(line.matrix, line) : line
  return box.x >= own.x - 1 && box.y >= own.y - 1 && box.x <= own.x + own.width + 1 && box.y <= own.y + own.height + 1
}
const byRole = computed(() =>
  styles.list
    .filter(each => each.family === 'paragraph')
    .sort((a, b) => Number(b.role !== null) - Number(a.role !== null)),
)
onMounted(() => {
  void styles.refresh()
})
const fields = [
  { id: 'x', title: 'From the left' },
  { id: 'y', title: 'From the top' },
  { id: 'width', title: 'Width' },
  { id: 'height', title: 'Height' },
] as const
</script>

<template>
  <section class="mt-7" aria-labelledby="frames">
    <h2 id="frames">{{ frame ? frame.name || 'Frame' : 'Frames' }}</h2>
    <p v-if="!frame" class="text-soft">
      Click the edge of a frame on the sheets to choose it; hold Alt to choose it by any part of it. A new one begins
      with these:
    </p>
    <div v-if="frame && place" class="mt-2 grid grid-cols-4 gap-3">
      <label v-for="field in fields" :key="field.id" class="text-[13px] text-soft"
        >{{ field.title }}
        <input
          v-typed="ways.said(place[field.id])"
          class="field mt-[2px] w-full text-ink tabular-nums"
          @change="set(field.id, ($event.target as HTMLInputElement).value)"
        />
      </label>
    </div>
    <div class="mt-2 grid grid-cols-4 items-end gap-3">
      <label class="text-[13px] text-soft"
        >Columns<input
          v-model.number="text.columns"
          type="number"
          min="1"
          max="20"
          class="field mt-[2px] w-full text-ink tabular-nums"
      /></label>
      <label class="text-[13px] text-soft"
        >Gap<input v-model="text.gap" class="field mt-[2px] w-full text-ink tabular-nums"
      /></label>
      <label class="text-[13px] text-soft"
        >Inset<input v-model="text.inset" class="field mt-[2px] w-full text-ink tabular-nums"
      /></label>
      <button v-if="frame" type="button" class="plain" @click="setText">Set these</button>
    </div>
    <div v-if="frame" class="mt-3 flex flex-wrap items-end gap-3">
      <label v-if="frame.shape === 'draw:frame' && frame.content !== 'image'" class="text-[13px] text-soft"
        >Text goes on in
        <Choice class="mt-[2px] flex max-w-[220px] text-ink" :model-value="next" @update:model-value="chain($event)">
          <option value="">no other frame</option>
          <option v-for="other in others" :key="other.node" :value="String(other.node)">
            {{ other.name }}, {{ other.story }}
          </option>
        </Choice>
      </label>
      <button type="button" class="plain" @click="remove">Take it away</button>
      <button type="button" class="link py-[6px]" @click="words.frame = null">Let go of it</button>
    </div>
    <label v-if="!frame" class="mt-3 block text-[13px] text-soft"
      >Its text begins
      <Choice
        v-model="words.frameStyle"
        class="mt-[2px] flex max-w-[320px] text-ink"
        aria-label="How text of a new frame begins"
      >
        <option value="">as the defaults say</option>
        <option value="caret" :disabled="!words.spot">like its neighbour, the text with the caret</option>
        <option v-for="each in byRole" :key="each.name" :value="each.name">
          {{ each.role ? `as ${roleTitle(each.role)}: ${each.displayName}` : `in ${each.displayName}` }}
        </option>
      </Choice>
    </label>
    <div v-if="!frame" class="mt-3 flex gap-3">
      <button
        type="button"
        :class="words.drawing ? 'act' : 'plain'"
        :aria-pressed="words.drawing !== null"
        @click="words.drawing = words.drawing ? null : frameText()"
      >
        {{ words.drawing ? 'Draw it on the sheet' : 'Draw a text frame' }}
      </button>
      <button type="button" class="plain" @click="add(false)">New text frame</button>
      <button type="button" class="plain" @click="add(true)">Fill the margins</button>
    </div>
    <div class="mt-4 flex items-end gap-3">
      <label class="text-[13px] text-soft"
        >Filler text
        <Choice v-model="script" class="mt-[2px] flex text-ink">
          <option v-for="each in filler" :key="each.script" :value="each.script">{{ each.script }}</option>
        </Choice>
      </label>
      <label class="text-[13px] text-soft"
        >Paragraphs<input
          v-model.number="count"
          type="number"
          min="1"
          max="200"
          class="field mt-[2px] block w-[72px] text-ink tabular-nums"
      /></label>
      <button type="button" class="plain" @click="fill">Put filler in</button>
    </div>
  </section>
</template>
