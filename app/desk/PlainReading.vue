<script setup lang="ts">
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import type { PlainParagraph, PlainStory } from '~~/core/desk/plain-text'
import { counted } from './words'

/**
 * All text of the document in one face and size, white space shown: where a lone space, a tiny or a pale character
 * cannot hide. Caret and selection are those of the sheets.
 */
const emit = defineEmits<{ write: [] }>()
const desk = useDesk()
const words = useWords()
const stories = shallowRef<readonly PlainStory[]>([])
const paragraphs = shallowRef<readonly PlainParagraph[]>([])
const total = computed(() => stories.value.reduce((sum, story) => sum + story.count, 0))
const scroller = ref<HTMLElement | null>(null)
/** So many paragraphs are shown at once; more come with scrolling. */
const step = 150
const from = ref(0)
const to = ref(step)

async function load(): Promise<void> {
  const { engine } = desk
  if (!engine) return
  stories.value = await engine.ask('stories', {})
  paragraphs.value = await engine.ask('paragraphs', { from: from.value, to: to.value })
}

async function start(): Promise<void> {
  await load()
  const { spot } = words
  if (!spot || !desk.engine) return
  const all = await desk.engine.ask('paragraphs', { from: 0, to: total.value })
  const index = all.findIndex(each => each.node === spot.node && each.part === spot.part)
  if (index < 0) return
  from.value = Math.max(0, index - 20)
  to.value = from.value + step
  await load()
  await nextTick()
  scroller.value?.querySelector(`[data-node="${spot.node}"]`)?.scrollIntoView({ block: 'center' })
}

async function goTo(story: PlainStory): Promise<void> {
  from.value = story.from
  to.value = story.from + step
  await load()
  scroller.value!.scrollTop = 0
}

async function more(): Promise<void> {
  const view = scroller.value
  if (!view) return
  if (view.scrollTop + view.clientHeight > view.scrollHeight - 400 && to.value < total.value) {
    to.value += step
    await load()
  } else if (view.scrollTop < 60 && from.value > 0) {
    const before = view.scrollHeight
    from.value = Math.max(0, from.value - step)
    await load()
    await nextTick()
    view.scrollTop += view.scrollHeight - before
  }
}

const titleAt = computed(() => new Map(stories.value.map(story => [story.from, story.title])))
const ranges = computed(() => new Map(words.ranges.map(range => [`${range.part}#${range.node}`, range])))

/** A paragraph in pieces: text, white space as signs, what is selected, and the caret. */
function pieces(
  paragraph: PlainParagraph,
): { text: string; at: number; blank: boolean; chosen: boolean; caret: boolean }[] {
  const range = ranges.value.get(`${paragraph.part}#${paragraph.node}`)
  const caret =
    words.spot?.part === paragraph.part && words.spot.node === paragraph.node && !words.hasSelection
      ? words.spot.offset
      : -1
  const cuts = new Set([
    0,
    paragraph.text.length,
    ...(range ? [range.from, range.to] : []),
    ...(caret >= 0 ? [caret] : []),
  ])
  for (const match of paragraph.text.matchAll(/[\s\uFFFC]+/g)) {
    cuts.add(match.index)
    cuts.add(match.index + match[0].length)
  }
  const order = [...cuts].filter(at => at <= paragraph.text.length).sort((a, b) => a - b)
  const list = order.slice(0, -1).map((at, index) => {
    const text = paragraph.text.slice(at, order[index + 1])
    return {
      text,
      at,
      blank: /^[\s\uFFFC]/.test(text),
      chosen: range !== undefined && at >= range.from && at < range.to,
      caret: at === caret,
    }
  })
  if (caret === paragraph.text.length) list.push({ text: '', at: caret, blank: false, chosen: false, caret: true })
  return list
}
const signsOf = (text: string) =>
  text
    .replace(/[ ]/g, '␣')
    .replace(/\u00A0/g, '⍽')
    .replace(/\t/g, '⇥')
    .replace(/\n/g, '⏎')
    .replace(/\uFFFC/g, '▢')

function spotOf(event: MouseEvent, paragraph: PlainParagraph): number {
  const holder = event.currentTarget as HTMLElement
  const at = document.caretPositionFromPoint?.(event.clientX, event.clientY)
  const piece = at?.offsetNode.parentElement?.closest<HTMLElement>('[data-at]')
  if (!at || !piece || !holder.contains(piece)) return paragraph.text.length
  return Math.min(Number(piece.dataset.at) + at.offset, paragraph.text.length)
}
async function press(event: PointerEvent, paragraph: PlainParagraph): Promise<void> {
  event.preventDefault()
  const offset = spotOf(event, paragraph)
  if (event.detail === 2) await words.selectWord({ part: paragraph.part, node: paragraph.node, offset })
  else await words.place({ part: paragraph.part, node: paragraph.node, offset }, event.shiftKey)
  emit('write')
}
async function drag(event: PointerEvent, paragraph: PlainParagraph): Promise<void> {
  if ((event.buttons & 1) === 0 || !words.anchor) return
  await words.place({ part: paragraph.part, node: paragraph.node, offset: spotOf(event, paragraph) }, true)
}

watch(() => desk.generation, load)
onMounted(start)
</script>

<template>
  <div class="flex min-h-0 flex-1">
    <nav
      class="w-[190px] shrink-0 overflow-y-auto border-r border-rule bg-paper px-3 py-4 text-[13px]"
      aria-label="Texts"
    >
      <button
        v-for="story in stories"
        :key="story.from"
        type="button"
        class="block w-full truncate py-[3px] text-left hover:underline"
        :title="`${story.title}: ${counted(story.count, 'paragraph')}`"
        @click="goTo(story)"
      >
        {{ story.title }}
      </button>
    </nav>
    <div
      ref="scroller"
      class="min-h-0 flex-1 cursor-text overflow-y-auto bg-sheet px-8 py-5"
      tabindex="0"
      aria-label="Plain reading"
      @scroll.passive="more"
    >
      <template v-for="(paragraph, index) in paragraphs" :key="`${paragraph.part}#${paragraph.node}`">
        <h2 v-if="titleAt.has(from + index)" class="mt-5 mb-2 border-b border-rule text-[15px] first:mt-0">
          {{ titleAt.get(from + index) }}
        </h2>
        <p
          :data-node="paragraph.node"
          class="grid grid-cols-[104px_minmax(0,1fr)] gap-4 text-[15px] leading-[23px]"
          @pointerdown="press($event, paragraph)"
          @pointermove="drag($event, paragraph)"
        >
          <span class="truncate text-right text-[12px] text-soft select-none" :title="paragraph.style">{{
            paragraph.style
          }}</span>
          <span class="break-words whitespace-pre-wrap select-none"
            ><template v-for="piece in pieces(paragraph)" :key="piece.at"
              ><span
                :data-at="piece.at"
                :class="{
                  'text-verdigris': piece.blank,
                  'bg-verdigris/25': piece.chosen,
                  'border-l-2 border-ink': piece.caret,
                }"
                >{{ piece.blank ? signsOf(piece.text) : piece.text }}</span
              ><wbr v-if="piece.blank" /></template
            ><span class="text-verdigris" aria-hidden="true">▫</span></span
          >
        </p>
      </template>
    </div>
  </div>
</template>
