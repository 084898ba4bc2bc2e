import { defineStore } from 'pinia'
import type { FrameText } from '~~/core/document/edit-layout'
import type { Edit, Edits } from '~~/core/document/edits'
import type { Spot, TextRange } from '~~/core/typeset/caret'
import type { Move } from '~~/core/typeset/text-walk'
import type { Copied } from '~~/core/desk/word-desk'
import { isAway, sentenceOf, useDesk } from './desk'

/**
 * How long typing rests before what was typed becomes a version, and before everything is counted again.
 * Milliseconds.
 */
const pause = { store: 900, count: 700, again: 5000 } as const

/** The caret, what is selected, and the words that are typed. */
export const useWords = defineStore('words', () => {
  const desk = useDesk()
  const anchor = shallowRef<Spot | null>(null)
  const spot = shallowRef<Spot | null>(null)
  const ranges = shallowRef<readonly TextRange[]>([])
  /** A whole frame that is pointed at, instead of text. */
  const frame = shallowRef<{ readonly part: string; readonly node: number } | null>(null)
  /** The next frame is drawn on the sheets, with text standing in it so. */
  const drawing = shallowRef<FrameText | null>(null)
  /**
   * The paragraph style that text of new frames begins in; '' for the starting type, 'caret' for that of the text
   * with the caret.
   */
  const frameStyle = ref('')
  /** What copying would give; fetched ahead, since a clipboard does not wait. */
  const copied = shallowRef<Copied | null>(null)
  const message = ref('')
  const saving = ref(false)
  /** Where the caret wants to be when it goes up and down, in points. */
  const wish = ref<number | null>(null)
  const pending = shallowRef<Edits>([])
  const said = ref('')
  let storing: Promise<void> | null = null
  let storeTimer: ReturnType<typeof setTimeout> | undefined
  let countTimer: ReturnType<typeof setTimeout> | undefined
  let queue: Promise<unknown> = Promise.resolve()
  let retry = false

  const hasSelection = computed(() => ranges.value.some(range => range.to > range.from) || ranges.value.length > 1)
  const unsaved = computed(() => pending.value.length > 0 || saving.value)

  function clear(): void {
    anchor.value = null
    spot.value = null
    ranges.value = []
    copied.value = null
    frame.value = null
    drawing.value = null
    message.value = ''
  }

  async function select(): Promise<void> {
    const { engine } = desk
    if (!engine || !spot.value || !anchor.value) {
      ranges.value = []
      return
    }
    const [one, other] = [anchor.value, spot.value]
    const found = await engine.ask('ranges', { one, other })
    if (spot.value !== other || anchor.value !== one) return
    ranges.value = found
    copied.value = null
    if (hasSelection.value) {
      const content = await engine.ask('copy', { ranges: found })
      if (ranges.value === found) copied.value = content
    }
  }

  /** Puts the caret somewhere; with `extend` the selection reaches there. */
  async function place(to: Spot, extend = false): Promise<void> {
    frame.value = null
    if (!extend || !anchor.value) anchor.value = to
    spot.value = to
    wish.value = null
    message.value = ''
    await select()
  }

  async function selectRange(one: Spot, other: Spot): Promise<void> {
    frame.value = null
    anchor.value = one
    spot.value = other
    await select()
  }

  /** Shows the page the caret is on. */
  async function reveal(): Promise<void> {
    const { engine } = desk
    if (!engine || !spot.value) return
    const found = await engine.ask('where', { spot: spot.value, view: desk.view, near: desk.page })
    if (found && (found.view !== desk.view || found.page !== desk.page)) desk.show(found.view, found.page)
    desk.reveal++
  }

  async function move(way: Move, extend: boolean): Promise<void> {
    const { engine } = desk
    if (!engine || !spot.value) return
    let to = spot.value
    // Without extending, the caret leaves a selection at the side it goes to.
    if (!extend && hasSelection.value && (way === 'left' || way === 'right')) {
      const [first, last] = [ranges.value[0]!, ranges.value.at(-1)!]
      to =
        way === 'left'
          ? { part: first.part, node: first.node, offset: first.from }
          : { part: last.part, node: last.node, offset: last.to }
    } else to = await engine.ask('move', { spot: spot.value, move: way })
    await place(to, extend)
    await reveal()
  }

  async function selectAll(): Promise<void> {
    const { engine } = desk
    if (!engine || !spot.value) return
    const [one, other] = await engine.ask('whole', spot.value)
    await selectRange(one, other)
  }

  async function selectWord(at: Spot): Promise<void> {
    const { engine } = desk
    if (!engine) return
    const { from, to } = await engine.ask('word', { spot: at })
    await selectRange({ ...at, offset: from }, { ...at, offset: to })
  }

  /** Edits that take the selection away, and where the caret is then. */
  function removal(): { edits: Edit[]; at: Spot } | null {
    const [first] = ranges.value
    const last = ranges.value.at(-1)
    if (!first || !last || !hasSelection.value) return spot.value && { edits: [], at: spot.value }
    const at: Spot = { part: first.part, node: first.node, offset: first.from }
    if (first === last)
      return {
        edits: [{ type: 'text', part: first.part, node: first.node, from: first.from, to: first.to, text: '' }],
        at,
      }
    const edits: Edit[] = []
    if (last.to > 0) edits.push({ type: 'text', part: last.part, node: last.node, from: 0, to: last.to, text: '' })
    for (const range of ranges.value.slice(1, -1)) edits.push({ type: 'remove', part: range.part, node: range.node })
    if (first.to > first.from)
      edits.push({ type: 'text', part: first.part, node: first.node, from: first.from, to: first.to, text: '' })
    edits.push({ type: 'join', part: first.part, node: first.node })
    return { edits, at }
  }

  /** Makes edits one after the other; what cannot be made is said, and nothing of it is done. */
  function edit(edits: readonly Edit[], after: (made: number | null) => Spot | null): Promise<boolean> {
    const run = async (): Promise<boolean> => {
      const { engine } = desk
      if (!engine || edits.length === 0) return false
      try {
        desk.dropAfter()
        const done = await engine.ask('edit', { edits })
        pending.value = [...pending.value, ...done.edits]
        message.value = ''
        const to = after(done.made)
        if (to) {
          anchor.value = to
          spot.value = to
          ranges.value = []
          copied.value = null
          wish.value = null
        }
        desk.generation++
        later()
        return true
      } catch (error) {
        message.value = sentenceOf(error)
        return false
      }
    }
    const next = queue.then(run, run)
    queue = next
    return next
  }

  function later(): void {
    clearTimeout(storeTimer)
    clearTimeout(countTimer)
    storeTimer = setTimeout(() => {
      void flush()
    }, pause.store)
    countTimer = setTimeout(() => {
      void desk.count()
    }, pause.count)
  }

  /** Keys act one after the other: each finds the caret where the one before has left it. */
  let line: Promise<unknown> = Promise.resolve()
  function act(action: () => unknown): Promise<unknown> {
    letters = null
    line = line.then(action, action)
    return line
  }

  /** Letters that wait for their turn are written in one go. */
  let letters: { text: string } | null = null
  /** Writes text where the caret is, in place of what is selected. */
  function type(text: string): void {
    if (letters) {
      letters.text += text
      return
    }
    const own = { text }
    void act(async () => {
      if (letters === own) letters = null
      const gone = removal()
      if (!gone || own.text === '') return
      const { part, node, offset } = gone.at
      const [only] = gone.edits
      const edits: Edit[] =
        gone.edits.length === 1 && only?.type === 'text'
          ? [{ ...only, text: own.text }]
          : [...gone.edits, { type: 'text', part, node, from: offset, to: offset, text: own.text }]
      await edit(edits, () => ({ part, node, offset: offset + own.text.length }))
      await reveal()
    })
    letters = own
  }

  async function erase(way: Move): Promise<void> {
    const { engine } = desk
    if (!engine || !spot.value) return
    const gone = removal()
    if (gone && gone.edits.length > 0) {
      await edit(gone.edits, () => gone.at)
      await reveal()
      return
    }
    const from = spot.value
    const to = await engine.ask('move', { spot: from, move: way })
    if (to.node === from.node && to.part === from.part) {
      const [low, high] = [Math.min(from.offset, to.offset), Math.max(from.offset, to.offset)]
      if (high > low)
        await edit([{ type: 'text', part: from.part, node: from.node, from: low, to: high, text: '' }], () => ({
          ...from,
          offset: low,
        }))
    } else {
      // Over the edge of a paragraph: the two are joined.
      const first = way.endsWith('left') ? to : from
      await edit([{ type: 'join', part: first.part, node: first.node }], () => first)
    }
    await reveal()
  }

  async function split(): Promise<void> {
    const gone = removal()
    if (!gone) return
    const { part, node, offset } = gone.at
    await edit([...gone.edits, { type: 'split', part, node, at: offset }], made =>
      made === null ? null : { part, node: made, offset: 0 },
    )
    await reveal()
  }

  /** What text of a new frame begins in, as an edit takes it. */
  async function newFrameStyle(): Promise<{ style?: string }> {
    const { engine } = desk
    if (frameStyle.value !== 'caret') return frameStyle.value === '' ? {} : { style: frameStyle.value }
    const style = spot.value && engine ? await engine.ask('styleAt', spot.value) : null
    return style === null ? {} : { style }
  }

  /** Stores what was typed as one version. */
  async function flush(): Promise<void> {
    clearTimeout(storeTimer)
    await line.catch(() => {})
    await queue.catch(() => {})
    while (storing) await storing
    const { engine, info } = desk
    if (pending.value.length === 0 || !engine || !info) return
    const edits = pending.value
    pending.value = []
    saving.value = true
    storing = (async () => {
      const base = info.document.version
      try {
        await engine.ask('keep', { state: base + 1 })
        const stored = await $fetch<{ version: { number: number; state: number }; said: readonly string[] }>(
          `/api/documents/${info.document.id}/edit`,
          { method: 'POST', body: { base, edits } },
        )
        await desk.refresh()
        said.value =
          stored.said.length > 0
            ? `Stored. What no longer showed the document was dropped: ${stored.said.join(', ')}.`
            : ''
      } catch (error) {
        if (isAway(error)) {
          // The server was not reached, or does not reach its database: nothing is lost, it is tried again.
          pending.value = [...edits, ...pending.value]
          message.value =
            'What you typed could not be stored: the server is not reached. It is kept here and tried again; do not close this page.'
          retry = true
          return
        }
        const typed = edits.flatMap(({ edit: each }) => (each.type === 'text' ? [each.text] : [])).join('')
        desk.failure =
          `${sentenceOf(error)}${typed ? ` What you typed: “${typed.slice(0, 400)}”.` : ''} ` +
          `Reload the page to go on from what is stored.`
      } finally {
        saving.value = false
        storing = null
      }
    })()
    await storing
    if (retry) {
      retry = false
      storeTimer = setTimeout(() => {
        void flush()
      }, pause.again)
    } else if (pending.value.length > 0) later()
  }

  /** Undoes or does again; what is being typed is stored first. */
  async function step(direction: 'undo' | 'redo'): Promise<void> {
    await flush()
    const { engine } = desk
    const before = spot.value
    ranges.value = []
    copied.value = null
    await desk.step(direction)
    // The caret stays where it was, as far as its paragraph is still there.
    if (!before || !engine) return
    const kept = await engine.ask('clamp', { spot: before })
    if (kept === null) {
      clear()
      return
    }
    anchor.value = spot.value = kept
    await reveal()
  }

  return {
    act,
    anchor,
    spot,
    ranges,
    frame,
    drawing,
    frameStyle,
    copied,
    message,
    said,
    saving,
    unsaved,
    wish,
    hasSelection,
    clear,
    place,
    selectRange,
    selectAll,
    selectWord,
    move,
    reveal,
    edit,
    type,
    erase,
    split,
    removal,
    newFrameStyle,
    flush,
    step,
  }
})
