import { defineStore } from 'pinia'
import type { StylePlan } from '~~/core/change/styles/plan'
import type { StyleDetail } from '~~/core/change/styles/style-detail'
import type { StyleSummary } from '~~/core/change/styles/style-list'
import type { TextScope, StyleWish } from '~~/core/change/styles/wishes'
import { emphasisGroups, typeGroups, type GroupId } from '~~/core/style/groups'
import { sentenceOf, useDesk } from './desk'
import { useWords } from './words'

export type StyleFamily = 'paragraph' | 'text'
export type OpenStyle = StyleDetail & { readonly faceFeatures: readonly string[] }

/** Wishes as plain data: a form's own objects cannot be posted to a worker. */
const plainly = (wishes: readonly StyleWish[]): StyleWish[] => JSON.parse(JSON.stringify(wishes)) as StyleWish[]

/** The styles of the document on the desk, and what is being planned with them. */
export const useStyles = defineStore('styles', () => {
  const desk = useDesk()
  const words = useWords()
  const list = shallowRef<readonly StyleSummary[]>([])
  const selected = shallowRef<{ readonly family: StyleFamily; readonly name: string } | null>(null)
  const panel = ref<'list' | 'edit' | 'make' | 'settle' | 'rules' | 'import' | 'languages' | 'plan'>('list')
  /** What happens to local formatting where a style is applied. */
  const strays = ref<'keep' | 'settle'>('settle')
  const keep = ref<GroupId[]>([...emphasisGroups])
  /** What settling takes unless it is told otherwise. */
  const groups: readonly GroupId[] = typeGroups
  const wishes = shallowRef<readonly StyleWish[]>([])
  const struck = ref<string[]>([])
  const plan = shallowRef<StylePlan | null>(null)
  const busy = ref(false)
  const message = ref('')
  const done = ref('')
  /** Styles on keys of one's own: Alt with a figure. */
  const pins = shallowRef<Readonly<Record<string, { readonly family: StyleFamily; readonly name: string }>>>({})

  const summary = computed(
    () => list.value.find(each => each.family === selected.value?.family && each.name === selected.value.name) ?? null,
  )
  /** The text that is meant: what is selected, else the paragraph with the caret, else the frame that is pointed at. */
  const target = computed((): { scope: TextScope; words: string; inline: boolean } | null => {
    if (words.frame) return { scope: { kind: 'frame', ...words.frame }, words: 'the chosen frame', inline: false }
    if (words.hasSelection) {
      const ranges = words.ranges.map(({ part, node, from, to }) => ({ part, node, from, to }))
      return {
        scope: { kind: 'ranges', ranges },
        words: ranges.length === 1 ? 'the selected words' : `${ranges.length} selected paragraphs`,
        inline: ranges.length === 1,
      }
    }
    return words.spot
      ? {
          scope: {
            kind: 'ranges',
            ranges: [{ part: words.spot.part, node: words.spot.node, from: 0, to: 10_000_000 }],
          },
          words: 'the paragraph with the caret',
          inline: false,
        }
      : null
  })
  /** A paragraph style speaks for whole paragraphs: the selection is widened to them. */
  function scopeFor(family: StyleFamily): TextScope | null {
    const own = target.value?.scope ?? null
    return own?.kind === 'ranges' && family === 'paragraph'
      ? { kind: 'ranges', ranges: own.ranges.map(range => ({ ...range, from: 0, to: 10_000_000 })) }
      : own
  }

  async function refresh(): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    list.value = await desk.engine.ask('styleList', {}).catch(() => list.value)
    if (selected.value && !summary.value) selected.value = null
  }

  function recallPins(): void {
    const id = desk.info?.document.id
    try {
      pins.value = id ? (JSON.parse(localStorage.getItem(`pins ${id}`) ?? '{}') as typeof pins.value) : {}
    } catch {
      pins.value = {}
    }
  }
  function pin(figure: string, style: { family: StyleFamily; name: string } | null): void {
    const next = Object.fromEntries(
      Object.entries(pins.value).filter(
        ([key, each]) => key !== figure && (style === null || each.family !== style.family || each.name !== style.name),
      ),
    )
    if (style && figure !== '') next[figure] = style
    pins.value = next
    if (desk.info) localStorage.setItem(`pins ${desk.info.document.id}`, JSON.stringify(next))
  }
  const pinOf = (style: { family: StyleFamily; name: string }) =>
    Object.entries(pins.value).find(([, each]) => each.family === style.family && each.name === style.name)?.[0] ?? ''

  let asked = 0
  /** Shows on the sheets what wishes would do, without working out their effects. Nothing is stored. */
  async function preview(list: readonly StyleWish[]): Promise<void> {
    if (!desk.engine) return
    const own = ++asked
    try {
      await desk.engine.ask('planStyles', { request: { wishes: plainly(list), struck: [] }, effects: false })
      if (own !== asked) return
      message.value = ''
      desk.showAfter(null)
    } catch (error) {
      if (own === asked) message.value = sentenceOf(error)
    }
  }

  function dropPreview(): void {
    asked++
    desk.dropAfter()
  }

  /** Plans wishes with all they do, to be looked at before they are carried out. */
  async function propose(list: readonly StyleWish[], kept: readonly string[] = []): Promise<boolean> {
    if (!desk.engine) return false
    await words.flush()
    busy.value = true
    message.value = ''
    done.value = ''
    const own = ++asked
    let made = false
    try {
      const planned = await desk.engine.ask('planStyles', {
        request: { wishes: plainly(list), struck: [...kept] },
        effects: true,
      })
      if (own === asked) {
        wishes.value = list
        struck.value = [...kept]
        plan.value = planned.plan
        panel.value = 'plan'
        desk.showAfter(planned.sheets)
        made = true
      }
    } catch (error) {
      message.value = sentenceOf(error)
    }
    busy.value = false
    return made
  }

  function toggle(row: string): void {
    const next = struck.value.includes(row) ? struck.value.filter(each => each !== row) : [...struck.value, row]
    void propose(wishes.value, next)
  }

  /** Carries wishes out as one version. */
  async function carryOut(list: readonly StyleWish[], kept: readonly string[] = []): Promise<boolean> {
    if (!desk.info) return false
    await words.flush()
    busy.value = true
    message.value = ''
    done.value = ''
    let stored = false
    const { id, version } = desk.info.document
    try {
      const result = await $fetch<{ version: { title: string }; made: StylePlan['made'] }>(
        `/api/documents/${id}/styles`,
        { method: 'POST', body: { base: version, request: { wishes: list, struck: kept } } },
      )
      dropPreview()
      await desk.load(id)
      await refresh()
      const [first] = result.made
      if (first) selected.value = { family: first.family as StyleFamily, name: first.name }
      done.value = result.version.title
      stored = true
    } catch (error) {
      message.value = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) {
        const said = message.value
        dropPreview()
        await desk.load(id)
        message.value = said
      }
    }
    busy.value = false
    return stored
  }

  async function apply(): Promise<void> {
    if (await carryOut(wishes.value, struck.value)) leave()
  }

  /** Back to the list; what was planned is let go. */
  function leave(): void {
    dropPreview()
    plan.value = null
    wishes.value = []
    struck.value = []
    panel.value = 'list'
  }

  /** Gives the text that is meant a style, at once: undoing takes it back. */
  async function applyStyle(style: { family: StyleFamily; name: string | null }): Promise<void> {
    const scope = scopeFor(style.family)
    if (!scope) {
      message.value =
        'Put the caret into a paragraph, select text or choose a frame on the sheets; then give it a style.'
      return
    }
    await carryOut([{ type: 'apply', style, scope, strays: strays.value, keep: [...keep.value] }])
  }

  function clear(): void {
    list.value = []
    selected.value = null
    message.value = ''
    done.value = ''
    leave()
    recallPins()
  }

  return {
    list,
    selected,
    summary,
    panel,
    strays,
    keep,
    groups,
    wishes,
    struck,
    plan,
    busy,
    message,
    done,
    pins,
    target,
    scopeFor,
    refresh,
    pin,
    pinOf,
    recallPins,
    preview,
    dropPreview,
    propose,
    toggle,
    carryOut,
    apply,
    leave,
    applyStyle,
    clear,
  }
})
