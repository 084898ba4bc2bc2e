import type { LookCriteria, MatchScope } from '~~/core/census/criteria'
import type { ColorChange, RecastChange, RecastWish } from '~~/core/change/recast/wish'

/** A wish as its form holds it: '' and null do not matter, or leave it alone. */
export interface OpenRecast {
  text: string
  expression: boolean
  matchCase: boolean
  wholeWords: boolean
  family: string
  face: string
  status: string
  sizeLeast: number | null
  sizeMost: number | null
  weightLeast: number | null
  weightMost: number | null
  trackingLeast: number | null
  trackingMost: number | null
  italic: string
  color: string
  background: string
  case: string
  underlined: string
  raised: string
  paragraphStyle: string
  characterStyle: string
  role: string
  language: string
  script: string
  stray: string
  place: string
  scope: 'document' | 'story' | 'ranges' | 'pages'
  from: number | null
  to: number | null
  newWords: string
  replaceWords: boolean
  newFamily: string
  newFace: string
  newSize: number | null
  newSizeIs: 'points' | 'percent'
  newWeight: number | null
  newItalic: string
  newTracking: number | null
  newColor: string
  newBackground: string
  newCase: string
  newUnderlined: string
  newLeading: number | null
  newLeadingIs: 'points' | 'percent'
  newLanguage: string
  newParagraphStyle: string
  newCharacterStyle: string
  settle: boolean
  colors: { from: string; to: string; kinds: ColorChange['kinds'] }[]
}
export const everyKind: ColorChange['kinds'] = ['text', 'fill', 'page', 'line']
export const emptyRecast = (): OpenRecast => ({
  text: '',
  expression: false,
  matchCase: false,
  wholeWords: false,
  family: '',
  face: '',
  status: '',
  sizeLeast: null,
  sizeMost: null,
  weightLeast: null,
  weightMost: null,
  trackingLeast: null,
  trackingMost: null,
  italic: '',
  color: '',
  background: '',
  case: '',
  underlined: '',
  raised: '',
  paragraphStyle: '',
  characterStyle: '',
  role: '',
  language: '',
  script: '',
  stray: '',
  place: '',
  scope: 'document',
  from: null,
  to: null,
  newWords: '',
  replaceWords: false,
  newFamily: '',
  newFace: '',
  newSize: null,
  newSizeIs: 'points',
  newWeight: null,
  newItalic: '',
  newTracking: null,
  newColor: '',
  newBackground: '',
  newCase: '',
  newUnderlined: '',
  newLeading: null,
  newLeadingIs: 'points',
  newLanguage: '',
  newParagraphStyle: '',
  newCharacterStyle: '',
  settle: false,
  colors: [],
})

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value)

/** The wish that a form holds, as plain data. `ranges` is what is selected, where the scope is that. */
export function wishOf(
  form: OpenRecast,
  ranges: readonly { readonly part: string; readonly node: number; readonly from: number; readonly to: number }[],
  spot: { readonly part: string; readonly node: number } | null,
): unknown {
  const look: Record<string, unknown> = {}
  const change: Record<string, unknown> = {}
  const text = (key: keyof LookCriteria, value: string) => {
    if (value.trim() !== '') look[key] = value.trim()
  }
  const either = (key: keyof LookCriteria, value: string) => {
    if (value !== '') look[key] = value === 'yes'
  }
  const range = (key: keyof LookCriteria, least: number | null, most: number | null) => {
    if (isNumber(least) || isNumber(most))
      look[key] = { ...(isNumber(least) ? { least } : {}), ...(isNumber(most) ? { most } : {}) }
  }
  text('family', form.family)
  text('face', form.face)
  text('status', form.status)
  text('color', form.color)
  text('background', form.background)
  text('case', form.case)
  text('paragraphStyle', form.paragraphStyle)
  text('characterStyle', form.characterStyle)
  text('role', form.role)
  text('language', form.language)
  text('script', form.script)
  text('place', form.place)
  range('size', form.sizeLeast, form.sizeMost)
  range('weight', form.weightLeast, form.weightMost)
  range('tracking', form.trackingLeast, form.trackingMost)
  either('italic', form.italic)
  either('underlined', form.underlined)
  either('raised', form.raised)
  either('stray', form.stray)
  const set = (key: keyof RecastChange, value: unknown) => {
    if (value !== '' && value !== null && value !== undefined && !Number.isNaN(value)) change[key] = value
  }
  if (form.replaceWords) change.words = form.newWords
  set('family', form.newFamily)
  set('face', form.newFamily === '' ? '' : form.newFace)
  set('size', isNumber(form.newSize) ? { [form.newSizeIs]: form.newSize } : null)
  set('weight', form.newWeight)
  set('italic', form.newItalic === '' ? '' : form.newItalic === 'yes')
  set('tracking', form.newTracking)
  set('color', form.newColor)
  set('background', form.newBackground)
  set('case', form.newCase)
  set('underlined', form.newUnderlined === '' ? '' : form.newUnderlined === 'yes')
  set('leading', isNumber(form.newLeading) ? { [form.newLeadingIs]: form.newLeading } : null)
  set('language', form.newLanguage.trim())
  set('paragraphStyle', form.newParagraphStyle)
  if (form.newCharacterStyle !== '')
    change.characterStyle = form.newCharacterStyle === 'none' ? null : form.newCharacterStyle
  if (form.settle) change.settle = true
  const scope: MatchScope =
    form.scope === 'ranges' && ranges.length > 0
      ? { kind: 'ranges', ranges: ranges.map(({ part, node, from, to }) => ({ part, node, from, to })) }
      : form.scope === 'story' && spot
        ? { kind: 'story', part: spot.part, node: spot.node }
        : form.scope === 'pages' && isNumber(form.from)
          ? { kind: 'pages', from: form.from - 1, to: Math.max(isNumber(form.to) ? form.to : form.from, form.from) - 1 }
          : { kind: 'document' }
  return {
    type: 'recast',
    find: {
      ...(form.text === ''
        ? {}
        : {
            words: {
              text: form.text,
              expression: form.expression,
              matchCase: form.matchCase,
              wholeWords: form.wholeWords,
            },
          }),
      look,
      scope,
    },
    change,
    colors: form.colors
      .filter(each => each.from !== '' && each.to !== '' && each.from !== each.to)
      .map(each => ({ from: each.from, to: each.to, kinds: [...each.kinds] })),
  }
}

/** A kept wish, back in its form. */
export function formOf(wish: RecastWish): OpenRecast {
  const { find, colors } = wish
  const { change } = wish
  const yes = (value: boolean | undefined) => (value === undefined ? '' : value ? 'yes' : 'no')
  const { look } = find
  return {
    ...emptyRecast(),
    text: find.words?.text ?? '',
    expression: find.words?.expression ?? false,
    matchCase: find.words?.matchCase ?? false,
    wholeWords: find.words?.wholeWords ?? false,
    family: look.family ?? '',
    face: look.face ?? '',
    status: look.status ?? '',
    sizeLeast: look.size?.least ?? null,
    sizeMost: look.size?.most ?? null,
    weightLeast: look.weight?.least ?? null,
    weightMost: look.weight?.most ?? null,
    trackingLeast: look.tracking?.least ?? null,
    trackingMost: look.tracking?.most ?? null,
    italic: yes(look.italic),
    color: look.color ?? '',
    background: look.background ?? '',
    case: look.case ?? '',
    underlined: yes(look.underlined),
    raised: yes(look.raised),
    paragraphStyle: look.paragraphStyle ?? '',
    characterStyle: look.characterStyle ?? '',
    role: look.role ?? '',
    language: look.language ?? '',
    script: look.script ?? '',
    stray: yes(look.stray),
    place: look.place ?? '',
    scope: find.scope.kind === 'pages' ? 'pages' : 'document',
    from: find.scope.kind === 'pages' ? find.scope.from + 1 : null,
    to: find.scope.kind === 'pages' ? find.scope.to + 1 : null,
    newWords: change.words ?? '',
    replaceWords: change.words !== undefined,
    newFamily: change.family ?? '',
    newFace: change.face ?? '',
    newSize: change.size ? ('points' in change.size ? change.size.points : change.size.percent) : null,
    newSizeIs: change.size && 'percent' in change.size ? 'percent' : 'points',
    newWeight: change.weight ?? null,
    newItalic: yes(change.italic),
    newTracking: change.tracking ?? null,
    newColor: change.color ?? '',
    newBackground: change.background ?? '',
    newCase: change.case ?? '',
    newUnderlined: yes(change.underlined),
    newLeading: change.leading ? ('points' in change.leading ? change.leading.points : change.leading.percent) : null,
    newLeadingIs: change.leading && 'percent' in change.leading ? 'percent' : 'points',
    newLanguage: change.language ?? '',
    newParagraphStyle: change.paragraphStyle ?? '',
    newCharacterStyle: change.characterStyle === null ? 'none' : (change.characterStyle ?? ''),
    settle: change.settle ?? false,
    colors: colors.map(each => ({ ...each, kinds: [...each.kinds] })),
  }
}
