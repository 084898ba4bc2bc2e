import type { Frame, Inline, Paragraph, Story } from '../document/story-model'
import type { Cascade, ParagraphStyle } from '../style/cascade'
import { spanLayers, type Layer } from '../style/layers'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import { analyse, type Analysis } from './analysis'
import { composeTotalFit } from './fit'
import { borderColor, borderWidths, edges, type Edges } from './geometry'
import {
  composeGreedily,
  LineMaker,
  type Alignment,
  type Leading,
  type Line,
  type Measure,
  type TabStop,
} from './lines'
import type { Look, Typesetter } from './look'
import { readLevelFor, type Labels, type ListLevel } from './numbering'
import type { PictureSize } from './pictures'
import type { WordShapes } from './shaper'
import type { Words } from './words'
import { SetText, type FrameSize, type SetGlyphs } from './setting'

/** Values of fields that depend on the page; null keeps what the file stored. */
export interface PageFields {
  readonly pageNumber: (shift: number) => string
  readonly pageCount: string
  readonly chapter: ((level: number) => string | null) | null
  readonly header?: string | null
  readonly footer?: string | null
  readonly dateTime?: string | null
}

/** What everything that composes text works with. */
export interface Workshop {
  readonly cascade: Cascade
  readonly typesetter: Typesetter
  readonly labels: Labels
  /** Notes a feature that is kept in the file but not laid out, and what uses it: each counts once. */
  readonly unlaid: (feature: string, user: string | number) => void
  readonly fields: PageFields | null
  readonly title: string
  /** Paragraph spacing adds up, as some files ask; else the larger of two neighbours counts. */
  readonly spacingAdds: boolean
  /** Paragraphs that leave it to their page run from right to left. */
  readonly rightToLeft: boolean
  /** Justified text by total fit; else every line greedily. */
  readonly totalFit: boolean
  readonly pictureSize: PictureSize
}

/** A note's sign in a paragraph, and the note. */
export interface NoteAt {
  readonly at: number
  readonly note: Extract<Inline, { kind: 'note' }>
}

/** Glyphs that are no text of the paragraph: a label, or text that stands elsewhere: a drop cap. */
export interface SetLabel {
  readonly pieces: readonly SetGlyphs[]
  readonly x: number
  readonly text: string
}

/** A paragraph set in lines. Lengths in points; x from the column's left edge. */
export interface ParagraphLayout {
  /** As it is shown: fields have the values of their page. */
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly look: ParagraphLook
  readonly set: SetText
  readonly text: string
  readonly lines: readonly Line[]
  readonly x: number
  readonly width: number
  readonly label: SetLabel | null
  /** The drop cap, and the line whose baseline it stands on. */
  readonly drop: { readonly set: readonly SetGlyphs[]; readonly to: number; readonly line: number } | null
  readonly padding: Edges
  readonly spaceBefore: number
  readonly spaceAfter: number
  /** Frames anchored to it that do not stand in its lines. */
  readonly frames: readonly Frame[]
  readonly notes: readonly NoteAt[]
  readonly hasObjects: boolean
  /** Composed for one place on one page, beside frames: not to be used elsewhere. */
  readonly shaped: boolean
}

interface DropCap {
  readonly length: number
  readonly word: boolean
  readonly lines: number
  readonly distance: number
  readonly styleName: string | null
}

/** What a paragraph's style says of its lines. Styles that say the same share one: layouts are kept under it. */
export interface ParagraphLook {
  readonly properties: Readonly<Record<string, string>>
  /** The named style that it has or descends from. */
  readonly ownStyle: string
  readonly margin: Edges
  readonly padding: Edges
  readonly border: Edges
  readonly borderColor: string
  readonly background: string
  readonly indent: number
  readonly measure: Omit<Measure, 'width' | 'firstIndent' | 'shape' | 'tabOrigin' | 'justifyBroken'>
  readonly strict: boolean
  readonly autospace: boolean
  readonly hanging: boolean
  readonly drop: DropCap | null
  readonly orphans: number
  readonly widows: number
}

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
  readonly looks = new WeakMap<ParagraphStyle, ParagraphLook>()
  readonly known = new Map<string, ParagraphLook>()
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

function alignmentOf(value: string | undefined, rightToLeft: boolean, fallback: Alignment): Alignment {
  switch (value) {
    case 'start':
      return rightToLeft ? 'right' : 'left'
    case 'end':
      return rightToLeft ? 'left' : 'right'
    case 'left':
    case 'right':
    case 'center':
    case 'justify':
      return value
    default:
      return fallback
  }
}

function tabStops(cascade: Cascade, style: ParagraphStyle): TabStop[] {
  if (!style.tabsNode) return []
  const { part } = cascade.scope(style.tabsNode.part)
  const holder = part.first(part.element(style.tabsNode.node), 'style:tab-stops')
  if (!holder) return []
  const stops = [...part.elements(holder, 'style:tab-stop')].map(({ attributes }): TabStop => {
    const type = attributes['style:type']
    const leaderStyle = attributes['style:leader-style'] ?? 'none'
    return {
      position: points(attributes['style:position']) ?? 0,
      type: type === 'right' || type === 'center' || type === 'char' ? type : 'left',
      char: attributes['style:char'] || '.',
      leader: attributes['style:leader-text'] ?? (leaderStyle === 'none' ? '' : leaderStyle === 'solid' ? '_' : '.'),
    }
  })
  return stops.sort((a, b) => a.position - b.position)
}

function dropCapOf(cascade: Cascade, style: ParagraphStyle): DropCap | null {
  if (!style.dropCapNode) return null
  const { part } = cascade.scope(style.dropCapNode.part)
  const attributes = part.first(part.element(style.dropCapNode.node), 'style:drop-cap')?.attributes ?? {}
  const lines = Math.min(Number.parseInt(attributes['style:lines'] ?? '1', 10) || 1, 20)
  const word = attributes['style:length'] === 'word'
  const length = word ? 1 : Number.parseInt(attributes['style:length'] ?? '1', 10) || 1
  return lines > 1
    ? {
        length,
        word,
        lines,
        distance: points(attributes['style:distance']) ?? 0,
        styleName: attributes['style:style-name'] ?? null,
      }
    : null
}

/** The last value that a layer sets for a text property outside the cascade of looks. */
function textProperty(layers: readonly Layer[], name: string): string | undefined {
  return layers.findLast(layer => layer.text[name] !== undefined)?.text[name]
}

function lookOf(style: ParagraphStyle, workshop: Workshop): ParagraphLook {
  const { cascade, typesetter } = workshop
  const kitchen = kitchenOf(typesetter)
  const known = kitchen.looks.get(style)
  if (known) return known
  const { properties } = style
  const { leading, layers, slots } = style.text.effective
  const mode = properties['style:writing-mode'] ?? 'page'
  const rightToLeft = mode === 'page' ? workshop.rightToLeft : /^rl/.test(mode)
  const plain = rightToLeft ? 'right' : 'left'
  const alignment = alignmentOf(properties['fo:text-align'], rightToLeft, plain)
  const height = leading['fo:line-height']
  const whole = (value: string | undefined, fallback: number) =>
    Math.max(0, Number.parseInt(value ?? '', 10) || fallback)
  const leads: Leading = {
    factor: height === undefined || height === 'normal' ? 1 : (percent(height) ?? 1),
    fixed: points(height),
    atLeast: points(leading['style:line-height-at-least']) ?? 0,
    extra: points(leading['style:line-spacing']) ?? 0,
  }
  const background = properties['fo:background-color'] ?? ''
  const made: ParagraphLook = {
    properties,
    ownStyle: style.named,
    margin: edges(properties, 'fo:margin'),
    padding: edges(properties, 'fo:padding'),
    border: borderWidths(properties),
    borderColor: borderColor(properties),
    background: /^#[0-9a-f]{6}$/i.test(background) ? background : '',
    indent:
      properties['style:auto-text-indent'] === 'true'
        ? slots.western.size
        : (points(properties['fo:text-indent']) ?? 0),
    measure: {
      alignment,
      lastAlignment:
        alignment === 'justify' ? alignmentOf(properties['fo:text-align-last'], rightToLeft, plain) : alignment,
      justifySingle: properties['style:justify-single-word'] === 'true',
      rightToLeft,
      tabs: tabStops(cascade, style),
      tabDistance: points(properties['style:tab-stop-distance']) || 35.4,
      leading: leads,
      division: {
        remain: whole(textProperty(layers, 'fo:hyphenation-remain-char-count'), 2),
        push: whole(textProperty(layers, 'fo:hyphenation-push-char-count'), 2),
        ladder:
          properties['fo:hyphenation-ladder-count'] === 'no-limit'
            ? 0
            : whole(properties['fo:hyphenation-ladder-count'], 0),
      },
    },
    strict: properties['style:line-break'] !== 'normal',
    autospace: properties['style:text-autospace'] !== 'none',
    hanging: properties['style:punctuation-wrap'] === 'hanging',
    drop: dropCapOf(cascade, style),
    orphans: Math.max(1, whole(properties['fo:orphans'], 1)),
    widows: Math.max(1, whole(properties['fo:widows'], 1)),
  }
  const key = JSON.stringify(made)
  let look = kitchen.known.get(key)
  if (!look) kitchen.known.set(key, (look = made))
  kitchen.looks.set(style, look)
  return look
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
    const look = lookOf(cascade.paragraph(paragraph, role), workshop)
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

/** Fields whose text depends on where or in what document they stand. */
export const livingFields: ReadonlySet<string> = new Set([
  'text:page-number',
  'text:page-count',
  'text:chapter',
  'presentation:header',
  'presentation:footer',
  'presentation:date-time',
])

/** What paragraphs with the values of their page were made from. */
const written = new WeakMap<Paragraph, Paragraph>()

/**
 * The offset in a paragraph as the file has it, for one in the paragraph as its page shows it: fields have other
 * lengths there, and count as a whole.
 */
export function fileOffset(shown: Paragraph, offset: number): number {
  const source = written.get(shown)
  if (!source) return offset
  let [at, own] = [0, 0]
  const length = (inline: Inline) =>
    inline.kind === 'annotation' ? 0 : inline.kind === 'frame' || inline.kind === 'note' ? 1 : inline.text.length
  for (let index = 0; index < shown.inlines.length; index++) {
    const [here, there] = [length(shown.inlines[index]!), length(source.inlines[index]!)]
    if (offset < at + here) return own + (here === there ? offset - at : 0)
    at += here
    own += there
  }
  return own
}

/** Whether a paragraph is shown with values that its page gave it. */
export const hasPageValues = (shown: Paragraph): boolean => written.has(shown)

function withFields(paragraph: Paragraph, workshop: Workshop): Paragraph {
  const { fields } = workshop
  const lives = (inline: Inline) =>
    inline.kind === 'text' &&
    inline.field !== null &&
    (inline.field === 'text:title' ? workshop.title !== '' : fields !== null && livingFields.has(inline.field))
  if (!paragraph.inlines.some(lives)) return paragraph
  const { part } = workshop.cascade.scope(paragraph.part)
  const shown: Paragraph = {
    ...paragraph,
    inlines: paragraph.inlines.map((inline): Inline => {
      if (inline.kind !== 'text' || !lives(inline)) return inline
      const node = part.node(inline.node)
      const field = node.kind === 'element' ? node.attributes : part.element(node.parent).attributes
      switch (inline.field) {
        case 'text:title':
          return { ...inline, text: workshop.title }
        case 'text:page-count':
          return { ...inline, text: fields!.pageCount }
        case 'presentation:header':
          return { ...inline, text: fields!.header ?? inline.text }
        case 'presentation:footer':
          return { ...inline, text: fields!.footer ?? inline.text }
        case 'presentation:date-time':
          return { ...inline, text: fields!.dateTime ?? inline.text }
        case 'text:chapter':
          return {
            ...inline,
            text: fields!.chapter?.(Number.parseInt(field['text:outline-level'] ?? '1', 10) || 1) ?? inline.text,
          }
        default: {
          const select = field['text:select-page']
          const adjust =
            (Number.parseInt(field['text:page-adjust'] ?? '0', 10) || 0) +
            (select === 'next' ? 1 : select === 'previous' ? -1 : 0)
          return { ...inline, text: fields!.pageNumber(adjust) }
        }
      }
    }),
  }
  written.set(shown, paragraph)
  return shown
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
  const look = lookOf(style, workshop)
  const shown = withFields(paragraph, workshop)
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
  // Without text, the paragraph's own look makes its one line.
  const empty = looks.length === 0 ? typesetter.look(style.text, 'western') : null
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
    { style, look, analysis, looks, level, labelText, labelLook: ownLabelLook, citation },
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

interface Parts {
  readonly style: ParagraphStyle
  readonly look: ParagraphLook
  readonly analysis: Analysis
  readonly looks: readonly Look[]
  readonly level: ListLevel | null
  readonly labelText: string
  readonly labelLook: Look | null
  readonly citation: string | null
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
  const empty = typesetter.look(parts.style.text, 'western')
  const set = new SetText(analysis, looks, typesetter, frameSize, { autospace: look.autospace, hanging: look.hanging })
  const {
    left: indent,
    firstIndent,
    label: started,
  } = labelled(paragraph, parts, set, empty, workshop.cascade.settings.IgnoreFirstLineIndentInNumbering)
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
  const drop = look.drop ? dropped(set, look.drop, look, empty, typesetter) : null
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

/** Where the text begins, and the label in front of it (ODF 1.4 part 3, 17.19 and 17.20). */
function labelled(
  paragraph: Paragraph,
  parts: Parts,
  set: SetText,
  empty: Look,
  ignoresIndent: boolean,
): { left: number; firstIndent: number; label: SetLabel | null } {
  const { style, look, level, labelText, labelLook: ownLook, citation } = parts
  const { margin } = look
  const labelSet = (at: number): { label: SetLabel; end: number } => {
    const pieces = set.setString(labelText, ownLook!, 0, 0)
    return { label: { pieces, x: at, text: labelText }, end: at + pieces.reduce((sum, piece) => sum + piece.width, 0) }
  }
  if (citation !== null && labelText !== '') {
    const { label, end } = labelSet(Math.max(margin.left + look.indent, 0))
    return {
      left: margin.left,
      firstIndent: Math.max(end + empty.size * 0.25 - margin.left, look.indent < 0 ? 0 : look.indent),
      label,
    }
  }
  if (!level) return { left: margin.left, firstIndent: look.indent, label: null }
  // Where labels have the old attributes, the paragraph's own first line counts on top of them.
  const ownIndent = level.labelAlignment || ignoresIndent ? 0 : look.indent
  let left = margin.left
  if (paragraph.list)
    left = level.labelAlignment
      ? style.properties['fo:margin-left'] !== undefined && style.listStyle !== null
        ? margin.left
        : level.indent
      : margin.left + level.indent
  else if (labelText !== '') left = margin.left || level.indent
  const shown = paragraph.list && !paragraph.list.labelled ? '' : labelText
  if (shown === '') return { left, firstIndent: paragraph.list ? ownIndent : look.indent, label: null }
  const start = Math.max(level.labelAlignment ? level.labelIndent : left - level.minWidth + ownIndent, 0)
  const { label, end } = labelSet(start)
  const after = end + level.minDistance
  let firstIndent: number
  if (level.followedBy === 'space') firstIndent = after + empty.size * 0.25 - left
  else if (level.followedBy === 'listtab')
    firstIndent =
      Math.max(
        after > left
          ? Math.max(level.tabAt ?? 0, after + 2)
          : Math.max(level.tabAt !== null && level.tabAt > after ? Math.min(level.tabAt, left) : left, after),
        left,
      ) - left
  else firstIndent = Math.max(after - left, ownIndent)
  return { left, firstIndent, label }
}

/** A drop cap: as high as its lines, from the first one's capital height to the last one's baseline. */
function dropped(
  set: SetText,
  drop: DropCap,
  look: ParagraphLook,
  empty: Look,
  typesetter: Typesetter,
): { set: SetGlyphs[]; to: number; lines: number; room: number } | null {
  const { analysis } = set
  const opening = drop.word
    ? (/^\s*\S+/u.exec(analysis.text)?.[0].length ?? 0)
    : [...analysis.text].slice(0, drop.length).join('').length
  if (opening === 0 || opening >= analysis.text.length || analysis.text.slice(0, opening).includes('\uFFFC'))
    return null
  const own = set.lookAt(0)
  const { leading } = look.measure
  const height = Math.max(leading.fixed ?? (empty.ascent + empty.descent) * leading.factor, leading.atLeast)
  const capitals = own.face.measures.capHeight / 1000
  const enlarged = typesetter.enlarged(own, ((drop.lines - 1) * height + own.size * capitals) / capitals)
  const pieces = set
    .setString(analysis.text.slice(0, opening), enlarged, 0, 0)
    .map(piece => ({ ...piece, from: 0, to: opening }))
  return {
    set: pieces,
    to: opening,
    lines: drop.lines,
    room: pieces.reduce((sum, piece) => sum + piece.width, 0) + drop.distance,
  }
}

function levelOf(paragraph: Paragraph, style: ParagraphStyle, workshop: Workshop): ListLevel | null {
  if (paragraph.list) return readLevelFor(paragraph, style, workshop.cascade, paragraph.list.level)
  return paragraph.heading === null ? null : readLevelFor(paragraph, style, workshop.cascade, paragraph.heading)
}

/** Labels take the paragraph's type, with the level's character style and then its own properties on top. */
function labelLook(level: ListLevel, style: ParagraphStyle, workshop: Workshop): Look {
  const { cascade, typesetter } = workshop
  const scope = cascade.scope(level.part)
  const own = scope.part.first(level.element, 'style:text-properties')
  const layers = spanLayers(scope, { node: -1, styleName: level.textStyle, classNames: [], parent: null })
  if (own)
    layers.push({
      from: 'list',
      local: false,
      text: own.attributes,
      paragraph: {},
      style: {
        part: level.part,
        node: level.element.id,
        family: 'list',
        name: '',
        displayName: 'list label',
        parentName: null,
        origin: 'common',
        text: own.attributes,
        paragraph: {},
        graphic: {},
        cell: {},
        propertyNodes: {},
        attributes: {},
        maps: [],
      },
    })
  return typesetter.look(cascade.label(style.text, `${level.part} ${level.element.id}`, layers), 'western')
}
