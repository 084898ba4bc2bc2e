import { defineStore } from 'pinia'
import { type StyleFamily, type TextFamily } from '~~/core/style/families'
import type { StyleDetail } from '~~/core/change/styles/style-detail'
import type { StyleSummary } from '~~/core/change/styles/style-list'
import type { RowKey } from '~~/core/change/plan'
import type { Wish } from '~~/core/change/registry'
import type { TextScope } from '~~/core/change/scope'
import { meantGroups, typeGroups, type GroupId } from '~~/core/style/groups'
import { useChange } from '../change/use-change'
import type { Pins } from '~~/shared/ways'
import { sentenceOf, useDesk } from './desk'
import { useWords } from './words'

export type OpenStyle = StyleDetail<StyleFamily> & { readonly faceFeatures: readonly string[] }

/** The styles of the document on the desk, and what is being planned with them. */
export const useStyles = defineStore('styles', () => {
  const desk = useDesk()
  const words = useWords()
  const change = useChange('styles')
  const list = shallowRef<readonly StyleSummary[]>([])
  const selected = shallowRef<{ readonly family: StyleFamily; readonly name: string } | null>(null)
  const panel = ref<
    'list' | 'edit' | 'make' | 'settle' | 'rules' | 'import' | 'languages' | 'draw-up' | 'levels' | 'charts' | 'plan'
  >('list')
  /** What happens to local formatting where a style is applied. */
  const strays = ref<'keep' | 'settle'>('settle')
  const keep = ref<GroupId[]>([...meantGroups])
  /** What settling takes unless it is told otherwise. */
  const groups: readonly GroupId[] = typeGroups
  /** What cannot be done is said here, or by the plan. */
  const said = ref('')
  const message = computed({
    get: () => said.value || change.message,
    set: text => {
      said.value = text
      change.message = text
    },
  })
  const busy = computed(() => change.busy !== '')
  const plan = computed(() => change.plan)
  const done = ref('')
  /** Raised when the search of the styles shall have the keyboard. */
  const searching = ref(0)
  /** Styles on keys of one's own: Alt with a figure. */
  const pins = shallowRef<Pins>({})
  /** Of which document they are known; '' while they are not. */
  const pinsOf = ref('')

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
  function scopeFor(family: TextFamily): TextScope | null {
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

  async function recallPins(): Promise<void> {
    const id = desk.info?.document.id
    // Until they are known, none is given: what is kept would be overwritten.
    pinsOf.value = ''
    pins.value = {}
    const found = id ? await $fetch<Pins>(`/api/me/pins/${id}`).catch(() => null) : null
    if (!found || desk.info?.document.id !== id) return
    pins.value = found
    pinsOf.value = id!
  }
  async function pin(figure: string, style: { family: TextFamily; name: string } | null): Promise<void> {
    const id = desk.info?.document.id ?? ''
    if (pinsOf.value !== id) await recallPins()
    if (id === '' || pinsOf.value !== id) {
      message.value = 'Your keys for styles cannot be fetched just now. Try again; nothing was changed.'
      return
    }
    const before = pins.value
    const next = Object.fromEntries(
      Object.entries(pins.value).filter(
        ([key, each]) => key !== figure && (style === null || each.family !== style.family || each.name !== style.name),
      ),
    )
    if (style && figure !== '') next[figure] = style
    pins.value = next
    try {
      await $fetch(`/api/me/pins/${id}`, { method: 'PUT', body: next })
    } catch (error) {
      pins.value = before
      message.value = sentenceOf(error)
    }
  }
  const pinOf = (style: { family: StyleFamily; name: string }) =>
    Object.entries(pins.value).find(([, each]) => each.family === style.family && each.name === style.name)?.[0] ?? ''

  /** Shows on the sheets what wishes would do, without working out their effects. Nothing is stored. */
  const preview = (list: readonly Wish[]) => change.preview(list)
  const dropPreview = () => change.hide()

  /** Plans wishes with all they do, to be looked at before they are carried out; the sheets show it. */
  async function propose(list: readonly Wish[], leftOut: readonly RowKey[] = []): Promise<boolean> {
    message.value = ''
    done.value = ''
    change.leftOut = [...leftOut]
    change.repairs = []
    const made = await change.make(list)
    if (made) {
      panel.value = 'plan'
      change.show()
    }
    return made
  }

  async function toggle(key: RowKey): Promise<void> {
    if (await change.toggle(key)) change.show()
  }

  /** Carries wishes out as one version: those of the plan, or others at once. */
  async function carryOut(list: readonly Wish[] | null): Promise<boolean> {
    message.value = ''
    done.value = ''
    const changed = await change.apply(list)
    if (!changed) return false
    await refresh()
    const [first] = changed.made
    if (first) selected.value = { family: first.family as StyleFamily, name: first.name }
    done.value = `Done: ${changed.version.title}`
    return true
  }

  async function apply(): Promise<void> {
    if (await carryOut(null)) leave()
  }

  /** Back to the list; what was planned is let go. */
  function leave(): void {
    change.reset()
    panel.value = 'list'
  }

  /** Gives the text that is meant a style, at once: undoing takes it back. */
  async function applyStyle(style: { family: TextFamily; name: string | null }): Promise<void> {
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
    void recallPins()
  }

  return {
    list,
    selected,
    summary,
    panel,
    strays,
    keep,
    groups,
    change,
    plan,
    busy,
    message,
    done,
    searching,
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
