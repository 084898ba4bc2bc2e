import { defineStore } from 'pinia'
import type { LookCriteria, MatchScope } from '~~/core/census/criteria'
import type { RecastPlan, RecastRow } from '~~/core/plan/recast/plan-recast'
import { recastRequestSchema, recastSentence, type ColorChange, type RecastChange, type RecastRequest } from '~~/core/plan/recast/request'
import type { KeptWish } from '~~/server/store/kept-wishes'
import type { SheetSize } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'
import { useStyles } from './styles'
import { useWords } from './words'

/** A wish as its form holds it: '' and null do not matter, or leave it alone. */
export interface OpenRecast {
  text: string, expression: boolean, matchCase: boolean, wholeWords: boolean
  family: string, face: string, status: string, sizeLeast: number | null, sizeMost: number | null, weightLeast: number | null, weightMost: number | null, trackingLeast: number | null, trackingMost: number | null
  italic: string, color: string, background: string, case: string, underlined: string, raised: string, paragraphStyle: string, characterStyle: string, role: string, language: string, script: string, stray: string, place: string
  scope: 'document' | 'story' | 'ranges' | 'pages', from: number | null, to: number | null
  newWords: string, replaceWords: boolean, newFamily: string, newFace: string, newSize: number | null, newSizeIs: 'points' | 'percent', newWeight: number | null, newItalic: string, newTracking: number | null, newColor: string, newBackground: string, newCase: string, newUnderlined: string
  newLeading: number | null, newLeadingIs: 'points' | 'percent', newLanguage: string, newParagraphStyle: string, newCharacterStyle: string, settle: boolean
  colors: { from: string, to: string, kinds: ColorChange['kinds'] }[]
}
const everyKind: ColorChange['kinds'] = ['text', 'fill', 'page', 'line']
export const emptyRecast = (): OpenRecast => ({
  text: '', expression: false, matchCase: false, wholeWords: false, family: '', face: '', status: '', sizeLeast: null, sizeMost: null, weightLeast: null, weightMost: null, trackingLeast: null, trackingMost: null,
  italic: '', color: '', background: '', case: '', underlined: '', raised: '', paragraphStyle: '', characterStyle: '', role: '', language: '', script: '', stray: '', place: '', scope: 'document', from: null, to: null,
  newWords: '', replaceWords: false, newFamily: '', newFace: '', newSize: null, newSizeIs: 'points', newWeight: null, newItalic: '', newTracking: null, newColor: '', newBackground: '', newCase: '', newUnderlined: '',
  newLeading: null, newLeadingIs: 'points', newLanguage: '', newParagraphStyle: '', newCharacterStyle: '', settle: false, colors: [],
})

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value)

/** The wish that a form holds, as plain data. `ranges` is what is selected, where the scope is that. */
export function requestOf(form: OpenRecast, ranges: readonly { readonly part: string, readonly node: number, readonly from: number, readonly to: number }[], spot: { readonly part: string, readonly node: number } | null, struck: readonly string[]): unknown {
  const look: Record<string, unknown> = {}
  const change: Record<string, unknown> = {}
  const text = (key: keyof LookCriteria, value: string) => { if (value.trim() !== '') look[key] = value.trim() }
  const either = (key: keyof LookCriteria, value: string) => { if (value !== '') look[key] = value === 'yes' }
  const range = (key: keyof LookCriteria, least: number | null, most: number | null) => { if (isNumber(least) || isNumber(most)) look[key] = { ...isNumber(least) ? { least } : {}, ...isNumber(most) ? { most } : {} } }
  text('family', form.family); text('face', form.face); text('status', form.status); text('color', form.color); text('background', form.background); text('case', form.case); text('paragraphStyle', form.paragraphStyle)
  text('characterStyle', form.characterStyle); text('role', form.role); text('language', form.language); text('script', form.script); text('place', form.place)
  range('size', form.sizeLeast, form.sizeMost); range('weight', form.weightLeast, form.weightMost); range('tracking', form.trackingLeast, form.trackingMost)
  either('italic', form.italic); either('underlined', form.underlined); either('raised', form.raised); either('stray', form.stray)
  const set = (key: keyof RecastChange, value: unknown) => { if (value !== '' && value !== null && value !== undefined && !Number.isNaN(value)) change[key] = value }
  if (form.replaceWords) change.words = form.newWords
  set('family', form.newFamily); set('face', form.newFamily === '' ? '' : form.newFace); set('size', isNumber(form.newSize) ? { [form.newSizeIs]: form.newSize } : null); set('weight', form.newWeight); set('italic', form.newItalic === '' ? '' : form.newItalic === 'yes')
  set('tracking', form.newTracking); set('color', form.newColor); set('background', form.newBackground); set('case', form.newCase); set('underlined', form.newUnderlined === '' ? '' : form.newUnderlined === 'yes')
  set('leading', isNumber(form.newLeading) ? { [form.newLeadingIs]: form.newLeading } : null); set('language', form.newLanguage.trim()); set('paragraphStyle', form.newParagraphStyle)
  if (form.newCharacterStyle !== '') change.characterStyle = form.newCharacterStyle === 'none' ? null : form.newCharacterStyle
  if (form.settle) change.settle = true
  const scope: MatchScope = form.scope === 'ranges' && ranges.length > 0 ? { kind: 'ranges', ranges: ranges.map(({ part, node, from, to }) => ({ part, node, from, to })) } : form.scope === 'story' && spot ? { kind: 'story', part: spot.part, node: spot.node }
    : form.scope === 'pages' && isNumber(form.from) ? { kind: 'pages', from: form.from - 1, to: Math.max(isNumber(form.to) ? form.to : form.from, form.from) - 1 } : { kind: 'document' }
  return {
    find: { ...form.text === '' ? {} : { words: { text: form.text, expression: form.expression, matchCase: form.matchCase, wholeWords: form.wholeWords } }, look, scope },
    change, colors: form.colors.filter(each => each.from !== '' && each.to !== '' && each.from !== each.to).map(each => ({ from: each.from, to: each.to, kinds: [...each.kinds] })), struck: [...struck],
  }
}

/** A kept wish, back in its form. */
export function formOf(request: RecastRequest): OpenRecast {
  const { find, colors } = request
  const { change } = request
  const yes = (value: boolean | undefined) => value === undefined ? '' : value ? 'yes' : 'no'
  const { look } = find
  return {
    ...emptyRecast(), text: find.words?.text ?? '', expression: find.words?.expression ?? false, matchCase: find.words?.matchCase ?? false, wholeWords: find.words?.wholeWords ?? false,
    family: look.family ?? '', face: look.face ?? '', status: look.status ?? '', sizeLeast: look.size?.least ?? null, sizeMost: look.size?.most ?? null, weightLeast: look.weight?.least ?? null, weightMost: look.weight?.most ?? null, trackingLeast: look.tracking?.least ?? null, trackingMost: look.tracking?.most ?? null,
    italic: yes(look.italic), color: look.color ?? '', background: look.background ?? '', case: look.case ?? '', underlined: yes(look.underlined), raised: yes(look.raised), paragraphStyle: look.paragraphStyle ?? '', characterStyle: look.characterStyle ?? '', role: look.role ?? '', language: look.language ?? '', script: look.script ?? '', stray: yes(look.stray), place: look.place ?? '',
    scope: find.scope.kind === 'pages' ? 'pages' : 'document', from: find.scope.kind === 'pages' ? find.scope.from + 1 : null, to: find.scope.kind === 'pages' ? find.scope.to + 1 : null,
    newWords: change.words ?? '', replaceWords: change.words !== undefined, newFamily: change.family ?? '', newFace: change.face ?? '', newSize: change.size ? 'points' in change.size ? change.size.points : change.size.percent : null, newSizeIs: change.size && 'percent' in change.size ? 'percent' : 'points',
    newWeight: change.weight ?? null, newItalic: yes(change.italic), newTracking: change.tracking ?? null, newColor: change.color ?? '', newBackground: change.background ?? '', newCase: change.case ?? '', newUnderlined: yes(change.underlined),
    newLeading: change.leading ? 'points' in change.leading ? change.leading.points : change.leading.percent : null, newLeadingIs: change.leading && 'percent' in change.leading ? 'percent' : 'points', newLanguage: change.language ?? '', newParagraphStyle: change.paragraphStyle ?? '', newCharacterStyle: change.characterStyle === null ? 'none' : change.characterStyle ?? '', settle: change.settle ?? false,
    colors: colors.map(each => ({ ...each, kinds: [...each.kinds] })),
  }
}

/** Finding by words and look, and what is made of it. */
export const useRecast = defineStore('recast', () => {
  const desk = useDesk()
  const words = useWords()
  const styles = useStyles()
  const form = ref<OpenRecast>(emptyRecast())
  const struck = ref<string[]>([])
  const plan = shallowRef<RecastPlan | null>(null)
  const sheetsAfter = shallowRef<readonly SheetSize[]>([])
  const busy = ref(false)
  const message = ref('')
  const done = ref('')
  const wishes = shallowRef<readonly KeptWish[]>([])
  /** Whether the sheets show what would be. */
  const showsAfter = ref(false)

  const titleOf = (name: string) => styles.list.find(style => style.name === name)?.displayName ?? name
  const parsed = computed(() => recastRequestSchema.safeParse(requestOf(form.value, words.ranges, words.spot, struck.value)))
  /** The whole wish, or what cannot be read of it. */
  const sentence = computed(() => parsed.value.success ? recastSentence(parsed.value.data, titleOf) : `This wish cannot be read: ${parsed.value.error.issues[0]?.path.slice(1).join(', ')} ${parsed.value.error.issues[0]?.message}.`)

  async function look(): Promise<void> {
    if (!desk.engine || !parsed.value.success) return
    await words.flush()
    busy.value = true
    message.value = ''
    done.value = ''
    try {
      const planned = await desk.engine.ask('recast', { request: JSON.parse(JSON.stringify(parsed.value.data)) as RecastRequest, effects: true })
      plan.value = planned.plan
      sheetsAfter.value = planned.sheets
      const places = planned.plan.rows.filter(row => row.places.length > 0)
      desk.walkThrough(places.map(occurrenceOf))
      if (showsAfter.value) desk.showAfter(planned.sheets)
    }
    catch (error) { plan.value = null; message.value = sentenceOf(error) }
    busy.value = false
  }
  const occurrenceOf = (row: RecastRow) => { const [place] = row.places; return { part: place!.part, node: place!.node, start: place!.from, end: place!.to, page: row.page, face: '', voice: '', place: 'body' as const } }

  /** Walks to a match, or shows the pages as they would be. */
  function goTo(row: RecastRow): void {
    const [place] = row.places
    const index = desk.occurrences.findIndex(each => each.node === place?.node && each.start === place.from)
    if (index >= 0) desk.at = index
  }
  function showAfter(on: boolean): void { showsAfter.value = on; if (on && plan.value) desk.showAfter(sheetsAfter.value); else desk.dropAfter() }
  function toggle(id: string): void { struck.value = struck.value.includes(id) ? struck.value.filter(each => each !== id) : [...struck.value, id]; void look() }

  async function apply(): Promise<void> {
    if (!plan.value || !desk.info || !parsed.value.success) return
    busy.value = true
    message.value = ''
    const { id, version } = desk.info.document
    const { places, title } = plan.value
    try {
      await $fetch(`/api/documents/${id}/recast`, { method: 'POST', body: { base: version, request: parsed.value.data } })
      drop()
      await desk.load(id)
      done.value = `${title}. ${places === 1 ? 'One place was' : `${places} places were`} changed, as version ${version + 1}.`
    }
    catch (error) {
      message.value = sentenceOf(error)
      if ((error as { statusCode?: number }).statusCode === 409) { const said = message.value; drop(); await desk.load(id); message.value = said }
    }
    busy.value = false
  }

  /** Lets go of what was found; the wish stays in its form. */
  function drop(): void {
    plan.value = null
    struck.value = []
    showsAfter.value = false
    desk.dropAfter()
    desk.walkThrough([])
  }
  function clear(): void { form.value = emptyRecast(); message.value = ''; done.value = ''; drop() }

  /** Fills the criteria with what the selected text looks like: where is looked stays as it is. */
  async function likeSelected(what: 'look' | 'words'): Promise<void> {
    const { spot } = words
    const near = spot ? await desk.engine?.ask('ranges', { one: { ...spot, offset: Math.max(spot.offset - 1, 0) }, other: { ...spot, offset: spot.offset + 1 } }) : undefined
    const ranges = words.hasSelection ? words.ranges : near ?? []
    const found = ranges.length > 0 ? await desk.engine?.ask('criteriaAt', { ranges: JSON.parse(JSON.stringify(ranges)) as typeof ranges }) : null
    if (!found) { message.value = 'Select text on the sheets first, or put the caret into it.'; return }
    message.value = ''
    if (what === 'words') form.value = { ...form.value, text: found.text.slice(0, 1000), expression: false }
    else {
      const { look: own } = found
      form.value = { ...form.value, family: own.family ?? '', face: own.face ?? '', sizeLeast: own.size?.least ?? null, sizeMost: own.size?.most ?? null, paragraphStyle: own.paragraphStyle ?? '', characterStyle: own.characterStyle ?? '' }
    }
  }

  async function fetchWishes(): Promise<void> { wishes.value = (await $fetch<KeptWish[]>('/api/wishes').catch(() => [])).filter(wish => wish.kind === 'recast') }
  async function keep(name: string): Promise<void> {
    if (!parsed.value.success) return
    try { await $fetch('/api/wishes', { method: 'POST', body: { name, wish: { kind: 'recast', request: { ...parsed.value.data, struck: [] } } } }); done.value = `Kept as “${name}”.`; await fetchWishes() }
    catch (error) { message.value = sentenceOf(error) }
  }
  async function forget(id: string): Promise<void> { await $fetch(`/api/wishes/${id}`, { method: 'DELETE' }).catch(() => null); await fetchWishes() }
  async function run(wish: KeptWish): Promise<void> { drop(); form.value = formOf(wish.request as RecastRequest); await look() }

  return { form, struck, plan, busy, message, done, wishes, showsAfter, parsed, sentence, everyKind, look, goTo, showAfter, toggle, apply, drop, clear, likeSelected, fetchWishes, keep, forget, run }
})
