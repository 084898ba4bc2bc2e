import { assignParagraph } from '../../document/paragraph-verbs'
import type { Style } from '../../document/styles'
import { encodeStyleName } from '../../document/style-names'
import { setReference } from '../../document/style-references'
import { addStyle } from '../../document/style-verbs'
import type { Paragraph } from '../../document/story-model'
import { paragraphRuns } from '../../style/runs'
import { meantGroups, typeGroups } from '../../style/groups'
import { differing, isLeading, lookOf, paragraphLookOf, voiceWord, type Look } from './look'
import { paragraphValuesToKeep, valuesToKeep } from '../keep-look'
import type { Planner } from '../planner'
import { settle } from '../styles/settle'
import { spent, written } from './carry-out'
import type { DrawnParagraph } from './gather'
import type { DrawnFrame } from './gather-frames'
import { sweepParagraph } from './sweep-paragraph'
import { allOf, type DrawnFrameStyle, type FrameProposal } from './propose-frames'

/** A frame with its new style. */
interface Given {
  readonly frame: DrawnFrame
  readonly name: string
  /** Its text takes the look of another voice. */
  readonly folded: boolean
  /** What the style says of all paragraphs in it. */
  readonly says: Look
}

/** Makes the styles of a proposal and gives them to their frames; what of the text is not as they say stays by hand. */
export function carryOutFrames(planner: Planner, proposal: FrameProposal, kept: (voice: string) => boolean): void {
  const names = new Map<DrawnFrameStyle, string>()
  const made = proposal.styles.filter(style => kept(style.voice))
  const place = (style: DrawnFrameStyle): string => {
    const known = names.get(style)
    if (known !== undefined) return known
    const parent = style.parent ? place(style.parent as DrawnFrameStyle) : style.base
    const name = makeFrameStyle(planner, style, parent)
    names.set(style, name)
    return name
  }
  const given: Given[] = []
  for (const style of made)
    for (const frame of style.frames)
      given.push({ frame, name: place(style), folded: voiceWord(frame.look) !== style.voice, says: allOf(style) })
  for (const { name, frames, voice, folded } of proposal.taken)
    if (kept(voice)) for (const frame of frames) given.push({ frame, name, folded, says: {} })
  for (const each of given) giveFrame(planner, each)
  planner.sweep()
  planner.reread()
  const now = new Map<string, Paragraph>()
  for (const { paragraph } of planner.paragraphs()) now.set(`${paragraph.part}#${paragraph.node}`, paragraph)
  for (const { frame, folded, says } of given)
    for (const was of frame.paragraphs)
      if (!folded || !frame.members.includes(was))
        pin(planner, was, now.get(`${was.paragraph.part}#${was.paragraph.node}`)!, says)
  planner.sweep()
  planner.reread()
  planner.forgetAutomatic()
  planner.quietly(() => sweepFrames(planner, given))
}

function makeFrameStyle(
  planner: Planner,
  { displayName, says, fonts }: DrawnFrameStyle,
  parent: string | null,
): string {
  const name = encodeStyleName(displayName)
  const { text, paragraph } = written(planner, says.text, fonts)
  addStyle(
    planner.common,
    'graphic',
    { name, displayName },
    { parent, text, paragraph: { ...says.paragraph, ...paragraph } },
  )
  planner.made.push({ family: 'graphic', name, displayName })
  return name
}

/** Lets a frame go back to its new style, which says how its text looks: what it said of that itself goes. */
function giveFrame(planner: Planner, { frame: { part, node, local, localText }, name, says }: Given): void {
  const draft = planner.change.on(part)
  const automatic = planner.automatic(part)
  const less = ({ text, paragraph }: Style) => ({
    text: spent(text),
    paragraph: spent(Object.fromEntries(Object.entries(paragraph).filter(([key]) => isLeading(key) || key in says))),
  })
  const own = local ? automatic.derive('graphic', local.name, { ...less(local), parent: name }) : name
  setReference(draft, { node, attribute: 'draw:style-name' }, own)
  if (localText)
    setReference(
      draft,
      { node, attribute: 'draw:text-style-name' },
      automatic.derive('paragraph', localText.name, less(localText)),
    )
}

/**
 * A paragraph that the new style of its frame would make look otherwise says for itself what it looked like: words in another
 * voice, empty lines, and what most of the frame's paragraphs do not share.
 */
function pin(
  planner: Planner,
  { labelled, local, role, runs, style }: DrawnParagraph,
  paragraph: Paragraph,
  says: Look,
): void {
  const { cascade } = planner.reading
  const now = cascade.paragraph(paragraph, role)
  const shown = paragraphRuns(paragraph, cascade, role).runs
  const looks = new Map(shown.map(run => [run.start, lookOf(run.style.effective)]))
  const text =
    labelled || !runs.some(run => run.shown)
      ? differing(lookOf(style.text.effective), lookOf(now.text.effective)).length > 0
      : runs.some(run => differing(lookOf(run.style.effective), looks.get(run.from) ?? {}).length > 0)
  const [before, after] = [paragraphLookOf(style.properties), paragraphLookOf(now.properties)]
  const values = paragraphValuesToKeep(before, after, paragraph.list !== null)
  const keep = text
    ? valuesToKeep(lookOf(style.text.effective), lookOf(now.text.effective))
    : { text: {}, paragraph: {} }
  // What the frame's style says for all of its paragraphs, none has to say.
  const said = Object.keys(local?.paragraph ?? {}).filter(name => name in says)
  const difference = {
    text: keep.text,
    paragraph: { ...Object.fromEntries(said.map(name => [name, null])), ...values, ...keep.paragraph },
  }
  if (Object.keys(difference.text).length + Object.keys(difference.paragraph).length === 0) return
  const automatic = planner.automatic(paragraph.part)
  assignParagraph(
    planner.change.on(paragraph.part),
    paragraph.node,
    automatic.derive('paragraph', paragraph.styleName, difference),
  )
}

/**
 * What was set by hand and says what the new style says now goes; of frames that take the look of another voice all goes but
 * for emphasis.
 */
function sweepFrames(planner: Planner, given: readonly Given[]): void {
  const nodes = new Set(
    given.flatMap(({ frame, folded }) =>
      folded ? [] : frame.paragraphs.map(({ paragraph: { part, node } }) => `${part}#${node}`),
    ),
  )
  for (const { paragraph, story } of planner.paragraphs())
    if (nodes.has(`${paragraph.part}#${paragraph.node}`)) sweepParagraph(planner, paragraph, story.role)
  planner.sweep()
  planner.reread()
  planner.forgetAutomatic()
  const frames = given.flatMap(each => (each.folded ? [each.frame] : []))
  const ranges = frames.flatMap(({ members }) =>
    members.map(({ paragraph: { part, node } }) => ({ part, node, from: 0, to: 10_000_000 })),
  )
  if (ranges.length === 0) return
  settle(planner, planner.stretches({ kind: 'ranges', ranges }), {
    groups: typeGroups.filter(group => group !== 'language' && group !== 'revision'),
    keep: meantGroups.filter(group => group !== 'language'),
    idleOnly: false,
    frames: frames.filter(frame => frame.members.length === frame.paragraphs.length),
  })
}
