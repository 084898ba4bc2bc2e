import { slots, type Slot } from '../../document/font-attributes'
import { sameFamily } from '../../document/font-family'
import { withParents, type Style } from '../../document/styles'
import { styleKey, styleRoles } from '../../census/style-roles'
import { resolutionOf } from '../../census/resolution'
import { measuresIn, pitchOf, scriptsOf, type FaceRecord } from '../../font/face'
import type { CoveredScript } from '../../font/measure/covered-scripts'
import { nearest } from '../../font/library'
import { slotAttributes, weightValue } from '../../style/properties'
import { plainNumber } from '../../style/describe'
import { roleTitle } from '../../style/roles'
import { setStart } from '../defaults/plan-starts'
import type { Numbered } from '../kind'
import { PlanError, type Told } from '../plan'
import type { Planner } from '../planner'
import { planRecasts } from '../recast/plan-recast'
import type { RecastWish } from '../recast/wish'
import type { Stretch } from '../scope'
import { editStyle } from '../styles/edit-style'
import type { StyleFamily } from '../../style/families'
import type { StyleChanges } from '../../style/style-changes'
import { planSwaps } from '../swap/plan-swap'
import { roundedSize, sizeWishSchema, sizeFactor } from '../swap/optical-size'
import { swapSchema } from '../swap/wish'
import { counted } from '../words'
import { setTypeTitle, type SetTypeWish } from './wish'

/** As large as it looked: by the height of small letters, wherever that leads. */
const asLarge = sizeWishSchema.parse({ mode: 'x-height', least: 50, most: 200 })

const slotOfScript: Readonly<Record<CoveredScript, Slot>> = {
  Latin: 'western',
  Greek: 'western',
  Cyrillic: 'western',
  Hebrew: 'complex',
  Arabic: 'complex',
  Devanagari: 'complex',
  Thai: 'complex',
  Han: 'asian',
  Hiragana: 'asian',
  Katakana: 'asian',
  Hangul: 'asian',
}

/** The face that a wish names, or the family's plain one. @throws PlanError */
function faceOf(planner: Planner, { to }: SetTypeWish): FaceRecord {
  const faces = planner.library.family(to.family)
  if (faces.length === 0)
    throw new PlanError(`“${to.family}” is not in the library, so nothing can be set in it. Nothing was changed.`)
  if (to.face === undefined) return nearest(faces, 400, false)
  const face = planner.library.named(to.family, to.face)
  if (!face)
    throw new PlanError(
      `${faces[0]!.family} has no face “${to.face}”. It has ${faces.map(each => each.style).join(', ')}. Nothing was changed.`,
    )
  return face
}

/** Slots whose scripts a face can set words in; the western one where it has signs alone. */
function slotsOf(face: FaceRecord): Slot[] {
  const able = new Set(scriptsOf(face).map(script => slotOfScript[script]))
  return able.size === 0 ? ['western'] : slots.filter(slot => able.has(slot))
}

/** The face that shows a style's text in a slot now. */
function shownIn(planner: Planner, style: Style, slot: Slot): FaceRecord {
  const named = planner.reading.cascade.named(style.part, style.family, style.name)
  return resolutionOf(planner.library, named, slot).face
}

/** The script of a slot that two faces are compared in: the first that both can set. */
const sharedScript = (slot: Slot, one: FaceRecord, other: FaceRecord): CoveredScript | null =>
  scriptsOf(other).find(script => slotOfScript[script] === slot && measuresIn(one, script) !== null) ?? null

/** What a style has to say so that its text is set in a face. */
function changesFor(planner: Planner, style: Style, wish: SetTypeWish, face: FaceRecord): StyleChanges {
  const used = new Set([...(planner.usersOf(style)?.styles.values() ?? [])].flatMap(own => [...own]))
  const able = slotsOf(face)
  const set = able.filter(slot => used.has(slot))
  const fonts: Partial<Record<Slot, { family: string; pitch: string }>> = {}
  const text: Record<string, string> = {}
  for (const slot of set.length > 0 ? set : able.slice(0, 1)) {
    const names = slotAttributes[slot]
    fonts[slot] = { family: face.family, pitch: pitchOf(face) }
    if (wish.to.face !== undefined) {
      text[names.weight] = weightValue(face.weight)
      text[names.style] = face.slant === 'italic' ? 'italic' : 'normal'
    }
    if (wish.size === 'equal') {
      const { size } = planner.reading.cascade.named(style.part, style.family, style.name).effective.slots[slot]
      const shown = shownIn(planner, style, slot)
      const factor = sizeFactor(asLarge, shown, face, sharedScript(slot, shown, face))
      text[names.size] = `${plainNumber(roundedSize(size * factor, asLarge.step))}pt`
    }
  }
  return { fonts, text }
}

const isStyle = (one: Style | undefined, other: Style): boolean =>
  one?.family === other.family && one.name === other.name

/** Text of a style that says its font itself: a change of the style does not reach it, and that is told. */
function tellStrays(planner: Planner, style: Style, face: FaceRecord): void {
  const { slots: asNamed } = planner.reading.cascade.named(style.part, style.family, style.name).effective
  let characters = 0
  for (const { paragraph, story } of planner.paragraphs()) {
    if (!isStyle(planner.reading.cascade.paragraph(paragraph, story.role).text.owner?.style, style)) continue
    for (const run of planner.runsOf(paragraph, story.role)) {
      const { family } = run.style.effective.slots[run.slot].font
      if (!isStyle(run.style.owner?.style, style) || sameFamily(family, asNamed[run.slot].font.family)) continue
      if (!sameFamily(family, face.family)) characters += run.end - run.start
    }
  }
  if (characters > 0)
    planner.note(
      `${counted(characters, 'character')} of ${style.displayName} that were set by hand`,
      'they keep the face they were given: settle them, or set the face on all text in that family',
      characters,
    )
}

function onStyle(planner: Planner, style: Style, wish: SetTypeWish, face: FaceRecord): void {
  const changes = changesFor(planner, style, wish, face)
  if (style.family !== 'text') tellStrays(planner, style, face)
  editStyle(planner, style.family as StyleFamily, style.name, changes)
}

/** The styles of a role that have to be told: those that others of the role go back to speak for them, too, where these say no font. */
function stylesOfRole(planner: Planner, role: string): Style[] {
  const known = styleRoles(planner.reading)
  const own = [...planner.scope.common.values()].filter(
    style => style.family === 'paragraph' && known.get(styleKey(style))?.role === role,
  )
  const among = new Set(own.map(style => style.name))
  return own.filter(style => {
    const [, ...parents] = withParents(planner.scope, style)
    return !parents.some(parent => among.has(parent.name)) || slots.some(slot => saysFont(style, slot))
  })
}
const saysFont = (style: Style, slot: Slot): boolean =>
  style.text[slot === 'western' ? 'style:font-name' : `style:font-name-${slot}`] !== undefined ||
  style.text[slot === 'western' ? 'fo:font-family' : `style:font-family-${slot}`] !== undefined

function onRole(planner: Planner, role: string, wish: SetTypeWish, face: FaceRecord): void {
  const styles = stylesOfRole(planner, role)
  if (styles.length === 0)
    throw new PlanError(
      `No paragraph style of this document is ${roleTitle(role)} text. Confirm roles in Styles, or choose a style. Nothing was changed.`,
    )
  for (const style of styles) onStyle(planner, style, wish, face)
}

/** The style that could say for all of its text what is set by hand here; told, not done. */
function adviseStyle(planner: Planner, stretches: readonly Stretch[]): void {
  const owners = new Map<Style, number>()
  for (const { paragraph, role } of stretches) {
    const owner = planner.reading.cascade.paragraph(paragraph, role).text.owner?.style
    if (owner) owners.set(owner, (owners.get(owner) ?? 0) + 1)
  }
  for (const [style] of owners) {
    let all = 0
    for (const { paragraph, story } of planner.paragraphs())
      if (isStyle(planner.reading.cascade.paragraph(paragraph, story.role).text.owner?.style, style)) all++
    planner.note(
      'set by hand',
      `the style ${style.displayName} would say it for all ${counted(all, 'paragraph')} that go by it`,
    )
  }
}

/** Sets it on words themselves, where no style speaks for them alone. */
function onStretches(
  planner: Planner,
  stretches: readonly Stretch[],
  { wish, index }: Numbered<SetTypeWish>,
  face: FaceRecord,
): Told {
  const ranges = stretches
    .filter(each => each.to > each.from)
    .map(({ paragraph, from, to }) => ({ part: paragraph.part, node: paragraph.node, from, to }))
  if (ranges.length === 0) throw new PlanError('There is no text that this is about. Nothing was changed.')
  const percent = wish.size === 'equal' ? percentFor(planner, stretches, face) : 100
  const recast: RecastWish = {
    type: 'recast',
    find: { look: {}, scope: { kind: 'ranges', ranges } },
    change: {
      family: face.family,
      ...(wish.to.face === undefined ? {} : { face: face.style }),
      ...(percent === 100 ? {} : { size: { percent } }),
    },
    colors: [],
  }
  const told = planRecasts(planner, [{ wish: recast, index }])
  adviseStyle(planner, stretches)
  return told
}

/** By how much sizes change, in percent: measured on the face that shows most of the text. */
function percentFor(planner: Planner, stretches: readonly Stretch[], face: FaceRecord): number {
  const shown = new Map<FaceRecord, { readonly face: FaceRecord; readonly slot: Slot; length: number }>()
  for (const { paragraph, role, from, to } of stretches)
    for (const run of planner.runsOf(paragraph, role)) {
      const length = Math.min(run.end, to) - Math.max(run.start, from)
      if (length <= 0) continue
      const own = resolutionOf(planner.library, run.style, run.slot).face
      const use = shown.get(own) ?? { face: own, slot: run.slot, length: 0 }
      use.length += length
      shown.set(own, use)
    }
  const most = [...shown.values()].sort((a, b) => b.length - a.length)[0]
  if (!most) return 100
  return Math.round(sizeFactor(asLarge, most.face, face, sharedScript(most.slot, most.face, face)) * 1000) / 10
}

/** Carries a wish out. @throws PlanError */
export function setType(planner: Planner, numbered: Numbered<SetTypeWish>): Told {
  const { wish, index } = numbered
  const face = faceOf(planner, wish)
  const { on } = wish
  const titleOf = (name: string) => planner.titleOf(planner.scope, on.kind === 'style' ? on.family : 'paragraph', name)
  const title = setTypeTitle(wish, titleOf)
  const own = planner.rows.length
  switch (on.kind) {
    case 'ranges':
    case 'frame':
      return { ...onStretches(planner, planner.stretches(on), numbered, face), titles: [title] }
    case 'family': {
      const swap = swapSchema.parse({
        type: 'swap',
        from: { family: on.family },
        to: { family: face.family, ...(wish.to.face === undefined ? {} : { style: face.style }) },
        ...(wish.size === 'equal' ? { size: asLarge } : {}),
      })
      return { ...planSwaps(planner, [{ wish: swap, index }]), titles: [title] }
    }
    case 'style':
      onStyle(planner, planner.style(on.family, on.name), wish, face)
      break
    case 'role':
      onRole(planner, on.role, wish, face)
      break
    case 'default':
      setStart(planner, on.start, {
        fonts: Object.fromEntries(slotsOf(face).map(slot => [slot, { family: face.family, pitch: pitchOf(face) }])),
      })
      break
  }
  return { titles: [title], ...planner.totals(own) }
}
