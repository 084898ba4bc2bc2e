import { fontAttributes, slots } from '../../document/font-attributes'
import { findStyle } from '../../document/styles'
import { emphasisGroups } from '../../style/groups'
import { describeValues, plainNumber } from '../../style/describe'
import { percent, slotAttributes } from '../../style/properties'
import { paragraphRuns } from '../../style/runs'
import type { TextStyle } from '../../style/cascade'
import { PlanError } from '../plan'
import { applyParagraphStyle, applyTextStyle } from './assign'
import { portedFonts } from './fonts'
import { editStyle, makeStyle } from './edit-style'
import type { Planner } from '../planner'
import type { Stretch } from '../scope'
import type { StyleName } from '../../document/style-names'

/** What was set by hand on some text, as values a named style can have. */
interface LocalLook {
  readonly text: Record<string, string>
  readonly paragraph: Record<string, string>
  readonly style: TextStyle
}

/** The local formatting of the text at the start of a stretch: of paragraph and words together, sizes in points. */
function localLook(planner: Planner, { paragraph, role, from }: Stretch, inline: boolean): LocalLook {
  const { cascade } = planner.reading
  const { runs } = paragraphRuns(paragraph, cascade, role)
  const run = runs.find(each => each.end > from && each.end > each.start)
  const style = run?.style ?? cascade.paragraph(paragraph, role).text
  let text: Record<string, string> = {}
  const own: Record<string, string> = {}
  for (const layer of style.effective.layers) {
    if (!layer.local || (layer.from !== 'text' && layer.from !== 'paragraph')) continue
    text = { ...text, ...portedFonts(planner, layer.style.part, layer.text) }
    if (layer.from === 'paragraph' && !inline) Object.assign(own, layer.paragraph)
  }
  for (const slot of slots) {
    const { size, sizeRelative } = slotAttributes[slot]
    // A percentage would be taken of another size under another parent.
    if (percent(text[size]) !== null || text[sizeRelative] !== undefined)
      text[size] = `${plainNumber(style.effective.slots[slot].size)}pt`
    delete text[sizeRelative]
    if (text[fontAttributes[slot].name] !== undefined) delete text[fontAttributes[slot].family]
  }
  for (const name of Object.keys(text)) if (name.startsWith('{')) delete text[name]
  for (const name of Object.keys(own))
    if (name.startsWith('{') || name.startsWith('fo:break') || name === 'style:page-number') delete own[name]
  return { text, paragraph: own, style }
}

/** The named paragraph style that a paragraph goes back to; null for none. */
function baseOf(planner: Planner, { paragraph }: Stretch): string | null {
  const style =
    paragraph.styleName === null
      ? undefined
      : findStyle(planner.reading.cascade.scope(paragraph.part), 'paragraph', paragraph.styleName)
  return style?.origin === 'automatic' ? style.parentName : (style?.name ?? null)
}

/** Makes a style of how text looks and gives it to that text; what was set by hand there goes. @throws PlanError */
export function adopt(
  planner: Planner,
  family: 'paragraph' | 'text',
  displayName: string,
  stretches: readonly Stretch[],
): StyleName {
  const usable =
    family === 'paragraph'
      ? stretches.filter(stretch => stretch.whole)
      : stretches.filter(stretch => stretch.to > stretch.from)
  if (usable.length === 0)
    throw new PlanError(
      family === 'paragraph'
        ? 'No whole paragraph looks like this: make a character style of it instead. Nothing was changed.'
        : 'There are no words here that a character style could be made of. Nothing was changed.',
    )
  const look = localLook(planner, usable[0]!, family === 'text')
  if (Object.keys(look.text).length === 0 && Object.keys(look.paragraph).length === 0)
    throw new PlanError(
      `This text looks as its style “${look.style.owner?.style.displayName ?? 'default'}” ` +
        `says: there is nothing to make another style of. Nothing was changed.`,
    )
  const base = family === 'paragraph' ? baseOf(planner, usable[0]!) : null
  const same = family === 'paragraph' ? usable.filter(stretch => baseOf(planner, stretch) === base) : usable
  for (const other of stretches)
    if (!same.includes(other))
      planner.note(
        other.whole
          ? `paragraphs based on ${planner.titleOf(planner.scope, 'paragraph', baseOf(planner, other))}`
          : 'words inside paragraphs',
        other.whole
          ? 'their indents and spacing would change with another style'
          : 'a paragraph style speaks for whole paragraphs',
      )
  const named = { ...look.text }
  const made = makeStyle(planner, family, displayName, {
    text: named,
    paragraph: family === 'paragraph' ? look.paragraph : undefined,
    parent: base,
  })
  planner.reread()
  if (family === 'paragraph')
    applyParagraphStyle(planner, refreshed(planner, same), made.name, 'settle', emphasisGroups)
  else applyTextStyle(planner, refreshed(planner, same), made.name, 'settle', [])
  return made
}

/** The same stretches in the document as it has become. */
function refreshed(planner: Planner, stretches: readonly Stretch[]): Stretch[] {
  return planner.stretches({
    kind: 'ranges',
    ranges: stretches.map(({ paragraph, from, to }) => ({ part: paragraph.part, node: paragraph.node, from, to })),
  })
}

/**
 * Makes the style of some text take over what was set on it by hand; everything else in the style follows. Returns
 * its name.
 * @throws PlanError
 */
export function teach(planner: Planner, stretches: readonly Stretch[]): string {
  const [first] = stretches
  if (!first) throw new PlanError('No text is selected. Nothing was changed.')
  const whole = first.whole
  const look = localLook(planner, first, !whole)
  const { owner } = look.style
  const target =
    whole && owner?.from === 'text'
      ? (look.style.effective.layers.findLast(layer => !layer.local && layer.from === 'paragraph') ?? null)
      : owner
  if (
    !target ||
    (target.style.family !== 'paragraph' && target.style.family !== 'text') ||
    target.style.origin !== 'common'
  )
    throw new PlanError(
      'This text has no named style that could take over how it looks. Make one of it instead. Nothing was changed.',
    )
  const family = target.style.family as 'paragraph' | 'text'
  if (Object.keys(look.text).length + Object.keys(look.paragraph).length === 0)
    throw new PlanError(`This text looks as “${target.style.displayName}” says already. Nothing was changed.`)
  editStyle(planner, family, target.style.name, {
    text: look.text,
    ...(family === 'paragraph' ? { paragraph: look.paragraph } : {}),
  })
  const row = planner.rows.pop()!
  planner.rows.push({ ...row, after: describeValues(look.text, look.paragraph, planner.scope).join(', ') || row.after })
  planner.reread()
  const again = refreshed(planner, stretches)
  if (family === 'paragraph')
    applyParagraphStyle(
      planner,
      again.filter(each => each.whole),
      target.style.name,
      'settle',
      emphasisGroups,
    )
  else applyTextStyle(planner, again, target.style.name, 'settle', [])
  return target.style.displayName
}
