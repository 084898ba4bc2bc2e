<script setup lang="ts">
import { caretBox, lineBeside, spotInLine } from '~~/core/typeset/caret'
import type { DisplayPage } from '~~/core/typeset/display'
import type { Move } from '~~/core/typeset/text-walk'
import { useDesk } from '../stores/desk'
import { usePasting } from '../stores/pasting'
import { useWords } from '../stores/words'

/** What the keyboard writes to: an unseen field that hands every key to the caret on the sheets. */
const emit = defineEmits<{ leave: [] }>()
const desk = useDesk()
const words = useWords()
const pasting = usePasting()
const field = ref<HTMLTextAreaElement | null>(null)
const composing = ref(false)

function focus(): void {
  field.value?.focus({ preventScroll: true })
}

/** Up and down: the line above or below on the page, else the last or first one of the next page. */
async function vertical(direction: 'up' | 'down', extend: boolean, pages = 0): Promise<void> {
  const { engine } = desk
  const { spot } = words
  if (!engine || !spot) return
  const at = await engine.ask('where', { spot, view: desk.view, near: desk.page })
  if (!at) return
  let { page } = await engine.ask('page', { side: 'now', view: at.view, index: at.page })
  const caret = caretBox(page, spot)
  if (!caret) return
  const x = words.wish ?? caret.x
  // The caret stays in its own text: a frame beside it is not the next line.
  const ownLines = async (of: DisplayPage) => {
    const nodes = new Set(
      await engine.ask('together', {
        part: spot.part,
        node: spot.node,
        others: [...new Set(of.lines.filter(line => line.part === spot.part && line.node >= 0).map(line => line.node))],
      }),
    )
    return (line: { part: string; node: number }) => line.part === spot.part && nodes.has(line.node)
  }
  let inText = await ownLines(page)
  let index = pages === 0 ? lineBeside(page, caret, direction, x, inText) : -1
  if (index < 0) {
    const next = at.page + (direction === 'down' ? Math.max(pages, 1) : -Math.max(pages, 1))
    if (next < 0 || next >= desk.shown.length) return
    ;({ page } = await engine.ask('page', { side: 'now', view: at.view, index: next }))
    inText = await ownLines(page)
    const own = page.lines.map((line, each) => ({ line, each })).filter(({ line }) => inText(line))
    const target = direction === 'down' || pages > 0 ? own[0] : own.at(-1)
    if (!target) return
    index = target.each
  }
  await words.place(spotInLine(page, index, x), extend)
  words.wish = x
  await words.reveal()
}

async function edge(which: 'start' | 'end', extend: boolean): Promise<void> {
  const { engine } = desk
  const { spot } = words
  if (!engine || !spot) return
  const at = await engine.ask('where', { spot, view: desk.view, near: desk.page })
  if (!at) return
  const { page } = await engine.ask('page', { side: 'now', view: at.view, index: at.page })
  const caret = caretBox(page, spot)
  const line = caret ? page.lines[caret.line] : undefined
  if (!caret || !line) return
  const next = page.lines[caret.line + 1]
  const wraps = next !== undefined && next.node === line.node && next.part === line.part && next.start === line.end
  const end = wraps
    ? line.contentEnd < line.end
      ? line.contentEnd
      : line.end - 1
    : line.contentEnd < line.end &&
        page.signs.some(sign => sign.kind === 'break' && Math.abs(sign.y - line.baseline) < 1)
      ? line.contentEnd
      : line.end
  await words.place({ ...spot, offset: which === 'start' ? line.start : end }, extend)
}

const moves: Readonly<Record<string, Move>> = { ArrowLeft: 'left', ArrowRight: 'right' }
async function key(event: KeyboardEvent): Promise<void> {
  if (composing.value) return
  const command = event.ctrlKey || event.metaKey
  const run = (action: () => unknown) => {
    event.preventDefault()
    event.stopPropagation()
    void words.act(action)
  }
  if (moves[event.key]) {
    run(() => words.move(command ? `word-${moves[event.key] as 'left' | 'right'}` : moves[event.key]!, event.shiftKey))
    return
  }
  switch (event.key) {
    case 'ArrowUp':
      run(() => vertical('up', event.shiftKey))
      return
    case 'ArrowDown':
      run(() => vertical('down', event.shiftKey))
      return
    case 'PageUp':
      run(() => vertical('up', event.shiftKey, 1))
      return
    case 'PageDown':
      run(() => vertical('down', event.shiftKey, 1))
      return
    case 'Home':
      run(() => (command ? words.move('start', event.shiftKey) : edge('start', event.shiftKey)))
      return
    case 'End':
      run(() => (command ? words.move('end', event.shiftKey) : edge('end', event.shiftKey)))
      return
    case 'Backspace':
      run(() => words.erase(command ? 'word-left' : 'left'))
      return
    case 'Delete':
      run(() => words.erase(command ? 'word-right' : 'right'))
      return
    case 'Enter':
      if (event.shiftKey) {
        event.preventDefault()
        words.type('\n')
      } else run(() => words.split())
      return
    case 'Tab':
      if (!event.shiftKey && !command) {
        event.preventDefault()
        words.type('\t')
      }
      return
    case 'Escape':
      run(() => {
        emit('leave')
      })
      return
  }
  if (!command) return
  if (event.key === 'a') run(() => words.selectAll())
  // What was selected a moment ago is not in the field yet: then it goes to the clipboard by the longer way.
  else if ((event.key === 'c' || event.key === 'x') && !words.copied) run(() => copyLater(event.key === 'x'))
}

function input(): void {
  if (composing.value || !field.value) return
  const text = field.value.value
  field.value.value = ''
  if (text !== '') words.type(text)
}

// What is selected stands in the field, selected: so that it can be copied, and be read out.
watch(
  () => words.copied,
  copied => {
    if (!field.value || composing.value) return
    field.value.value = copied?.text.slice(0, 20_000) ?? ''
    if (copied) field.value.select()
  },
)

async function copyLater(cut: boolean): Promise<void> {
  if (!desk.engine || !words.hasSelection) return
  const { text, html } = await desk.engine.ask('copy', { ranges: words.ranges })
  const blob = (type: string, content: string) => new Blob([content], { type })
  try {
    await navigator.clipboard.write([
      new ClipboardItem({ 'text/plain': blob('text/plain', text), 'text/html': blob('text/html', html) }),
    ])
  } catch {
    words.message = 'The clipboard cannot be reached. Nothing was copied or cut.'
    return
  }
  if (cut) await words.erase('left')
}

function copy(event: ClipboardEvent, cut: boolean): void {
  if (!words.copied) return
  event.preventDefault()
  event.clipboardData?.setData('text/plain', words.copied.text)
  event.clipboardData?.setData('text/html', words.copied.html)
  if (cut) void words.act(() => words.erase('left'))
}

function paste(event: ClipboardEvent): void {
  event.preventDefault()
  pasting.take(event.clipboardData?.getData('text/plain') ?? '', event.clipboardData?.getData('text/html') ?? '')
}

defineExpose({ focus })
</script>

<template>
  <textarea
    ref="field"
    class="absolute top-0 left-0 size-px resize-none overflow-hidden border-0 p-0 opacity-0 outline-none"
    aria-label="Words at the caret: type to write, Escape to leave"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    tabindex="-1"
    @keydown="key"
    @input="input"
    @compositionstart="composing = true"
    @compositionend="
      () => {
        composing = false
        input()
      }
    "
    @copy="copy($event, false)"
    @cut="copy($event, true)"
    @paste="paste"
  />
</template>
