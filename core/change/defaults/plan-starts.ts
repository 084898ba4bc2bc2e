import type { Values } from '../../document/automatic-styles'
import { slots } from '../../document/font-attributes'
import { points } from '../../document/lengths'
import type { RuleStart, StartKind } from '../../document/rules'
import { uniqueName } from '../../document/style-names'
import { setNoteStyle } from '../../document/style-users'
import { addStyle, setStyleValues } from '../../document/style-verbs'
import { describeValues, plainNumber } from '../../style/describe'
import { slotAttributes, weightValue } from '../../style/properties'
import { paragraphRuns } from '../../style/runs'
import { PlanError } from '../plan'
import type { Planner } from '../planner'
import { fontValues } from '../../document/face-verbs'
import { setLive } from './live-default'
import { setPlaceholder } from './placeholders'
import { isLive, isPlaceholder, startKindsOf } from './start-kinds'
import { kindTitles } from '../../style/start-titles'
import type { StartValues } from './wishes'

/** Sets what new text of a kind begins with. Existing text stays as it looks. @throws PlanError */
export function setStart(planner: Planner, kind: StartKind, values: StartValues): void {
  const { kind: documentKind } = planner.document
  if (!startKindsOf(documentKind).includes(kind))
    throw new PlanError(`A ${documentKind} has no default for “${kindTitles[kind]}”. Nothing was changed.`)
  const text: Record<string, string | null> = { ...values.text }
  for (const slot of slots) {
    const font = values.fonts?.[slot]
    if (font !== undefined) Object.assign(text, fontValues(planner.common, slot, font))
  }
  const paragraph = { ...values.paragraph }
  const words = describeValues(stated(text), stated(paragraph), planner.scope).join(', ')
  const live = isLive(documentKind, kind)
  if (isPlaceholder(kind)) setPlaceholder(planner, kind, text, paragraph)
  else if (live) setLive(planner, kind === 'body' ? 'paragraph' : 'graphic', { text, paragraph })
  const rules = planner.currentRules
  const known = rules.starts[kind]
  const next: RuleStart = {
    ...known,
    ...(live ? {} : { paragraph: setOwnStyle(planner, kind, known?.paragraph, text, paragraph) }),
    ...(kind === 'frame' ? setFrameStyle(planner, values) : {}),
  }
  planner.rules = {
    ...planner.currentRules,
    starts: { ...rules.starts, ...(Object.keys(next).length > 0 ? { [kind]: next } : {}) },
  }
  planner.row({
    key: { what: 'default', kind },
    stage: 'default',
    title: `What ${kindTitles[kind].toLowerCase()} begins with`,
    before: live ? 'the default of the document' : known ? 'its own style' : 'what the document’s defaults say',
    after: words || 'as set',
  })
  if (!live)
    planner.note(
      'other programs',
      kind === 'note'
        ? 'OpenDocument gives notes the name of a style, which is set: most programs follow it'
        : 'OpenDocument has no default for this kind, so they begin such text in their own way',
    )
}

const stated = (set: Values): Record<string, string> =>
  Object.fromEntries(Object.entries(set).filter((entry): entry is [string, string] => entry[1] !== null))

/**
 * The paragraph style that text of a kind without a live default begins with: the one it has where no text uses that
 * yet, else a new one, so that text that began with the style before keeps it. Returns its name.
 */
function setOwnStyle(
  planner: Planner,
  kind: StartKind,
  current: string | undefined,
  text: Values,
  paragraph: Values,
): string {
  const draft = planner.common
  const styles = planner.scope.common
  const existing = current === undefined ? undefined : styles.get(`paragraph\n${current}`)
  let target: { readonly name: string; readonly node: number } | undefined = existing
  if (!existing || planner.usersOf(existing) !== undefined) {
    const called = kind === 'note' ? /^(footnote|fußnote)/i : kind === 'header' ? /^header$/i : /^standard$/i
    const base =
      existing ?? [...styles.values()].find(style => style.family === 'paragraph' && called.test(style.displayName))
    const made = uniqueName(draft.part, 'paragraph', kindTitles[kind])
    target = { name: made.name, node: addStyle(draft, 'paragraph', made, { parent: base?.name ?? null }) }
  }
  setStyleValues(draft, target!.node, 'paragraph', paragraph)
  setStyleValues(draft, target!.node, 'text', text)
  if (kind === 'note') setNoteStyle(draft, target!.name)
  return target!.name
}

/** The graphic style that frames begin with, where their inset or fill is said. */
function setFrameStyle(planner: Planner, { inset, fill }: StartValues): RuleStart {
  if (inset === undefined && fill === undefined) return {}
  const draft = planner.common
  const made = uniqueName(draft.part, 'graphic', 'Text frame')
  const node = addStyle(draft, 'graphic', made, {})
  setStyleValues(draft, node, 'graphic', {
    'draw:fill': 'none',
    'draw:stroke': 'none',
    'fo:border': 'none',
    ...(inset === undefined ? {} : { 'fo:padding': `${inset}pt` }),
    ...(fill == null ? {} : { 'draw:fill': 'solid', 'draw:fill-color': fill }),
  })
  return { frame: made.name }
}

/**
 * What the text at a place looks like, as values to begin with: a finished object becomes the start of its kind.
 * @throws PlanError
 */
export function valuesLike(planner: Planner, part: string, node: number, offset: number): StartValues {
  for (const { paragraph, story } of planner.paragraphs()) {
    if (paragraph.part !== part || paragraph.node !== node) continue
    const { cascade } = planner.reading
    const { runs } = paragraphRuns(paragraph, cascade, story.role)
    const style =
      (runs.find(run => run.start <= offset && run.end > offset) ?? runs.at(-1))?.style ??
      cascade.paragraph(paragraph, story.role).text
    const { effective } = style
    const fonts = Object.fromEntries(
      slots.flatMap(slot => {
        const { family, generic, pitch } = effective.slots[slot].font
        return family === '' ? [] : [[slot, { family, ...(generic ? { generic } : {}), ...(pitch ? { pitch } : {}) }]]
      }),
    )
    const text: Record<string, string> = {}
    for (const slot of slots) {
      const own = effective.slots[slot]
      text[slotAttributes[slot].size] = `${plainNumber(own.size)}pt`
      text[slotAttributes[slot].weight] = weightValue(own.weight)
      text[slotAttributes[slot].style] = own.posture
    }
    for (const name of ['fo:color', 'fo:letter-spacing', 'fo:hyphenate'] as const)
      if (effective.shared[name] !== '') text[name] = effective.shared[name]
    const leading = effective.leading['fo:line-height']
    const frame = [...effective.layers]
      .reverse()
      .find(layer => layer.from === 'frame' && layer.style.graphic['fo:padding'] !== undefined)
    const inset = points(frame?.style.graphic['fo:padding'])
    const filled = [...effective.layers]
      .reverse()
      .find(layer => layer.from === 'frame' && layer.style.graphic['draw:fill'] !== undefined)?.style.graphic
    return {
      fonts,
      text,
      paragraph: leading === undefined ? {} : { 'fo:line-height': leading },
      ...(inset === null ? {} : { inset }),
      ...(filled
        ? {
            fill:
              filled['draw:fill'] === 'solid' && /^#[0-9a-f]{6}$/i.test(filled['draw:fill-color'] ?? '')
                ? filled['draw:fill-color']!
                : null,
          }
        : {}),
    }
  }
  throw new PlanError('The text that was to be the example is no longer there. Nothing was changed.')
}
