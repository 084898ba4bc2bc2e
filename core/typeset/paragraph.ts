import type { Frame, Paragraph, Story } from '../document/story-model'
import { analyse, type Analysis } from './analysis'
import { setDropCap } from './drop-cap'
import { composeTotalFit } from './fit'
import { composeGreedily } from './greedy'
import { LineMaker, type Measure } from './lines'
import { labelLook, levelOf, startOfText, type LabelParts } from './list-labels'
import type { Look, Typesetter } from './look'
import { withPageValues } from './page-values'
import { paragraphLook, type ParagraphLook } from './paragraph-look'
import type { NoteAt, ParagraphLayout, Workshop } from './paragraph-model'
import { SetText, type FrameSize } from './setting'
import type { WordShapes } from './word-shapes'
import type { Words } from './words'

interface Kept {
  readonly look: ParagraphLook
  readonly width: number
  readonly label: string
  readonly looks: readonly Look[]
  readonly empty: Look | null
  readonly labelLook: Look | null
  readonly totalFit: boolean
  readonly layout: ParagraphLayout
}

/** What a typesetter keeps of paragraphs from one composition to the next. */
class Kitchen {
  readonly layouts = new WeakMap<Paragraph, Kept[]>()
}
/** Paragraphs taken apart hang on how words are numbered, not on faces. */
const analysesBy = new WeakMap<Words, WeakMap<Paragraph, Analysis>>()
const kitchens = new WeakMap<Typesetter, Kitchen>()
function kitchenOf(typesetter: Typesetter): Kitchen {
  let kitchen = kitchens.get(typesetter)
  if (!kitchen) kitchens.set(typesetter, (kitchen = new Kitchen()))
  return kitchen
}

/** Lets go of everything that was set, after faces that were missing have come. */
export function forgetLayouts(typesetter: Typesetter): void {
  typesetter.forgetMissing()
  kitchens.delete(typesetter)
}

function analysisOf(paragraph: Paragraph, look: ParagraphLook, typesetter: Typesetter): Analysis {
  const { words } = typesetter
  let analyses = analysesBy.get(words)
  if (!analyses) analysesBy.set(words, (analyses = new WeakMap()))
  let analysis = analyses.get(paragraph)
  if (!analysis || analysis.rightToLeft !== look.measure.rightToLeft || analysis.strict !== look.strict) {
    analyses.set(
      paragraph,
      (analysis = analyse(paragraph, typesetter.words, { rightToLeft: look.measure.rightToLeft, strict: look.strict })),
    )
  }
  return analysis
}

/**
 * Shapes the words of many paragraphs at once, before they are set one by one: the same shapes, in fewer and longer
 * calls. What is set already costs next to nothing.
 */
export function prepareWords(
  paragraphs: Iterable<{ readonly paragraph: Paragraph; readonly role: Story['role'] }>,
  workshop: Workshop,
): void {
  const { cascade, typesetter } = workshop
  const wanted = new Map<WordShapes, number[]>()
  for (const { paragraph, role } of paragraphs) {
    const look = paragraphLook(cascade.paragraph(paragraph, role), workshop)
    const analysis = analysisOf(paragraph, look, typesetter)
    const { kind, word, run, script, level, segments } = analysis
    for (let segment = 0; segment < segments;) {
      // Stretches of one run, script and direction.
      let end = analysis.simple ? segments : segment + 1
      while (
        end < segments &&
        run[end] === run[segment] &&
        script[end] === script[segment] &&
        level[end] === level[segment]
      )
        end++
      const { inline, slot } = analysis.runs[run[segment]!]!
      const shapes = typesetter.shapes(
        typesetter.look(cascade.text(paragraph, inline.kind === 'annotation' ? null : inline.span, role), slot),
        script[segment]!,
        level[segment]! % 2 === 1,
      )
      let list = wanted.get(shapes)
      if (!list) wanted.set(shapes, (list = []))
      shapes.queueSegments(word, kind, segment, end, list)
      segment = end
    }
  }
  for (const [shapes, words] of wanted) shapes.ensureAll(words)
}

/**
 * Sets a paragraph in a column of some width. `shape` narrows lines beside frames; `citation` is a note's own
 * number.
 */
export function layoutParagraph(
  paragraph: Paragraph,
  role: Story['role'],
  columnWidth: number,
  workshop: Workshop,
  frameSize: FrameSize,
  shape: Measure['shape'] = null,
  citation: string | null = null,
): ParagraphLayout {
  const { cascade, typesetter } = workshop
  const style = cascade.paragraph(paragraph, role)
  const look = paragraphLook(style, workshop)
  const shown = withPageValues(paragraph, workshop)
  const analysis = analysisOf(shown, look, typesetter)
  const looks = analysis.runs.map((run): Look => {
    const own = typesetter.look(
      cascade.text(paragraph, run.inline.kind === 'annotation' ? null : run.inline.span, role),
      run.slot,
    )
    return run.inline.kind === 'note' ? typesetter.raised(own) : own
  })
  const level = levelOf(paragraph, style, workshop)
  const labelText = citation ?? (level ? (workshop.labels.get(paragraph) ?? '') : '')
  const ownLabelLook =
    labelText === ''
      ? null
      : level && citation === null
        ? labelLook(level, style, workshop)
        : typesetter.look(style.text, 'western')
  const hasFrames = analysis.hasObjects && analysis.runs.some(run => run.inline.kind === 'frame')
  const usual = shape === null && !hasFrames && look.drop === null
  // Without text, the paragraph's own look makes its one line, or that of a span that stands empty in it.
  const empty = looks.length === 0 ? typesetter.look(cascade.text(paragraph, paragraph.mark, role), 'western') : null
  const kept = usual ? kitchenOf(typesetter).layouts.get(shown) : undefined
  const known = kept?.find(
    each =>
      each.look === look &&
      each.width === columnWidth &&
      each.label === labelText &&
      each.labelLook === ownLabelLook &&
      each.totalFit === workshop.totalFit &&
      each.empty === empty &&
      each.looks.length === looks.length &&
      each.looks.every((one, at) => one === looks[at]),
  )
  if (known) return known.layout
  const layout = compose(
    shown,
    role,
    columnWidth,
    workshop,
    { style, look, analysis, looks, empty, level, labelText, labelLook: ownLabelLook, citation },
    frameSize,
    shape,
  )
  if (usual) {
    const entry: Kept = {
      look,
      width: columnWidth,
      label: labelText,
      looks,
      empty,
      labelLook: ownLabelLook,
      totalFit: workshop.totalFit,
      layout,
    }
    // The newest few: before and after a change, and in columns of two widths.
    kitchenOf(typesetter).layouts.set(shown, [entry, ...(kept ?? []).slice(0, 2)])
  }
  return layout
}

const noFrames: readonly Frame[] = []
const noNotes: readonly NoteAt[] = []

interface Parts extends LabelParts {
  readonly analysis: Analysis
  readonly looks: readonly Look[]
  /** What its one line is set in where it holds nothing. */
  readonly empty: Look | null
}

function compose(
  paragraph: Paragraph,
  role: Story['role'],
  columnWidth: number,
  workshop: Workshop,
  parts: Parts,
  frameSize: FrameSize,
  shape: Measure['shape'],
): ParagraphLayout {
  const { typesetter } = workshop
  const { look, analysis, looks } = parts
  const { margin, padding, border } = look
  const empty = parts.empty ?? typesetter.look(parts.style.text, 'western')
  const set = new SetText(analysis, looks, typesetter, frameSize, { autospace: look.autospace, hanging: look.hanging })
  const {
    left: indent,
    firstIndent,
    label: started,
  } = startOfText(paragraph, parts, set, empty, workshop.cascade.settings.IgnoreFirstLineIndentInNumbering)
  // Lists indent where the text begins: text that runs to the left begins at the right.
  const listed = look.measure.rightToLeft && parts.level !== null
  const left = listed ? margin.left : indent
  const right = listed ? Math.max(indent, margin.right) : margin.right
  const label =
    started && look.measure.rightToLeft
      ? { ...started, x: columnWidth - started.x - started.pieces.reduce((sum, piece) => sum + piece.width, 0) }
      : started
  const width = Math.max(columnWidth - left - right - padding.left - padding.right - border.left - border.right, 10)
  const x = left + padding.left + border.left
  const drop = look.drop ? setDropCap(set, look.drop, look.measure.leading, empty, typesetter) : null
  const narrowed: Measure['shape'] =
    drop || shape
      ? (line, y, height) => {
          const beside = drop && line < drop.lines ? drop.room : 0
          if (!shape) return { x: look.measure.rightToLeft ? 0 : beside, width: width - beside }
          const room = shape(line, y, height)
          if ('skipTo' in room) return room
          // Room is told from the column's left: the paragraph has its own edges inside.
          const from = Math.max(room.x - x, 0)
          const to = Math.min(room.x + room.width - x, width)
          return to - from < Math.min(width, 3 * empty.size)
            ? { skipTo: y + height }
            : { x: from + (look.measure.rightToLeft ? 0 : beside), width: to - from - beside }
        }
      : null
  const own = look.measure
  // Written out: a copy by spreading costs more than all the rest of it.
  const measure: Measure = {
    width,
    firstIndent: drop ? 0 : firstIndent,
    shape: narrowed,
    alignment: own.alignment,
    lastAlignment: own.lastAlignment,
    justifySingle: own.justifySingle,
    justifyBroken: !workshop.cascade.settings.DoNotJustifyLinesWithManualBreak,
    rightToLeft: own.rightToLeft,
    tabs: own.tabs,
    // From the indent, or from the edge of the column: a setting of the document.
    tabOrigin: workshop.cascade.settings.TabsRelativeToIndent ? 0 : -x,
    tabDistance: own.tabDistance,
    leading: own.leading,
    division: own.division,
  }
  const maker = new LineMaker(set, measure, empty, drop?.to ?? 0, label?.pieces.map(piece => piece.look) ?? [])
  const lines =
    workshop.totalFit && look.measure.alignment === 'justify' && !narrowed
      ? composeTotalFit(maker)
      : composeGreedily(maker)
  const missing = drop ? Math.max(drop.lines - lines.length, 0) * (lines[0]?.height ?? 0) : 0
  set.release()
  const frames = analysis.hasObjects
    ? analysis.runs.flatMap(run =>
        run.inline.kind === 'frame' && run.inline.frame.anchor !== 'as-char' ? [run.inline.frame] : [],
      )
    : noFrames
  return {
    paragraph,
    role,
    look,
    set,
    text: analysis.text,
    lines,
    x,
    width,
    label,
    frames,
    drop: drop ? { set: drop.set, to: drop.to, line: Math.min(drop.lines, lines.length) - 1 } : null,
    notes: analysis.hasObjects
      ? analysis.runs.flatMap(run => (run.inline.kind === 'note' ? [{ at: run.start, note: run.inline }] : []))
      : noNotes,
    padding: {
      top: padding.top + border.top,
      right: padding.right + border.right,
      bottom: padding.bottom + border.bottom + missing,
      left: padding.left + border.left,
    },
    spaceBefore: margin.top,
    spaceAfter: margin.bottom,
    hasObjects: analysis.hasObjects && analysis.runs.some(run => run.inline.kind === 'frame'),
    shaped: shape !== null,
  }
}
