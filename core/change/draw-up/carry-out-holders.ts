import { assignParagraph } from '../../document/paragraph-verbs'
import type { Style } from '../../document/styles'
import { encodeStyleName } from '../../document/style-names'
import { setReference } from '../../document/style-references'
import { addStyle } from '../../document/style-verbs'
import type { Paragraph } from '../../document/story-model'
import { paragraphRuns } from '../../style/runs'
import { meantGroups, typeGroups } from '../../style/groups'
import { comparable, differing, isLeading, lookOf, paragraphLookOf, voiceWord, type Look } from './look'
import { paragraphValuesToKeep, valuesToKeep } from '../keep-look'
import type { Planner } from '../planner'
import { settle } from '../styles/settle'
import { spent, written } from './carry-out'
import type { Dropped } from './propose'
import type { DrawnParagraph } from './gather'
import type { DrawnHolder } from './gather-holders'
import { sweepParagraph } from './sweep-paragraph'
import { allOf, type DrawnHolderStyle, type HolderProposal } from './propose-holders'

/** A frame or cell with its new style. */
interface Given {
  readonly holder: DrawnHolder
  readonly name: string
  /** Its text takes the look of another voice. */
  readonly folded: boolean
  /** What the style says of all paragraphs in it. */
  readonly says: Look
}

/** Makes the styles of a proposal and gives them to frames and cells; what of the text is not as they say stays by hand. */
export function carryOutHolders(planner: Planner, proposal: HolderProposal, dropped: Dropped): void {
  const names = new Map<DrawnHolderStyle, string>()
  const made = proposal.styles.filter(style => !dropped(style.voice, style.family))
  const place = (style: DrawnHolderStyle): string => {
    const known = names.get(style)
    if (known !== undefined) return known
    const parent = style.parent ? place(style.parent as DrawnHolderStyle) : style.base
    const name = makeHolderStyle(planner, style, parent)
    names.set(style, name)
    return name
  }
  const given: Given[] = []
  for (const style of made)
    for (const holder of style.holders)
      given.push({ holder, name: place(style), folded: voiceWord(holder.look) !== style.voice, says: allOf(style) })
  for (const { family, name, holders, voice, folded } of proposal.taken)
    if (!dropped(voice, family)) for (const holder of holders) given.push({ holder, name, folded, says: {} })
  for (const each of given) giveStyle(planner, each)
  planner.sweep()
  planner.reread()
  const now = new Map<string, Paragraph>()
  for (const { paragraph } of planner.paragraphs()) now.set(`${paragraph.part}#${paragraph.node}`, paragraph)
  for (const { holder, folded, says } of given)
    for (const was of holder.paragraphs)
      if (!folded || !holder.members.includes(was))
        pin(planner, was, now.get(`${was.paragraph.part}#${was.paragraph.node}`)!, says)
  planner.sweep()
  planner.reread()
  planner.forgetAutomatic()
  planner.quietly(() => sweepHolders(planner, given))
}

function makeHolderStyle(
  planner: Planner,
  { family, displayName, says, fonts }: DrawnHolderStyle,
  parent: string | null,
): string {
  const name = encodeStyleName(displayName)
  const { text, paragraph } = written(planner, says.text, fonts)
  addStyle(
    planner.common,
    family,
    { name, displayName },
    { parent, text, paragraph: { ...says.paragraph, ...paragraph } },
  )
  planner.made.push({ family, name, displayName })
  return name
}

/** Lets a frame or cell go back to its new style, which says how its text looks: what it said of that itself goes. */
function giveStyle(planner: Planner, given: Given): void {
  const { family, part, node, localText } = given.holder
  const draft = planner.change.on(part)
  const attribute = family === 'table-cell' ? 'table:style-name' : 'draw:style-name'
  setReference(draft, { node, attribute }, styleBelow(planner, given))
  if (localText)
    setReference(
      draft,
      { node, attribute: 'draw:text-style-name' },
      planner.automatic(part).derive('paragraph', localText.name, lessOf(localText, given)),
    )
}

/** What a style by hand no longer says where the new style says it. */
const lessOf = ({ text, paragraph }: Style, { says }: Given) => ({
  text: spent(text),
  paragraph: spent(Object.fromEntries(Object.entries(paragraph).filter(([key]) => isLeading(key) || key in says))),
})

/** What a frame or cell names then: its new style, or what it has by hand on top of that. */
function styleBelow(planner: Planner, given: Given): string | null {
  const { family, part, local } = given.holder
  return local
    ? planner.automatic(part).derive(family, local.name, { ...lessOf(local, given), parent: given.name })
    : given.name
}

/**
 * A paragraph that the new style of its frame or cell would make look otherwise says for itself what it looked like: words in another
 * voice, empty lines, and what most of the paragraphs there do not share.
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
  // What the new style says, none has to say.
  const said = Object.entries(local?.paragraph ?? {}).flatMap(([name, value]) =>
    comparable(value) === comparable(says[name]) ? [name] : [],
  )
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
 * What was set by hand and says what the new style says now goes; of frames and cells that take the look of another voice all
 * goes but for emphasis.
 */
function sweepHolders(planner: Planner, given: readonly Given[]): void {
  const nodes = new Set(
    given.flatMap(({ holder, folded }) =>
      folded ? [] : holder.paragraphs.map(({ paragraph: { part, node } }) => `${part}#${node}`),
    ),
  )
  for (const { paragraph, story } of planner.paragraphs())
    if (nodes.has(`${paragraph.part}#${paragraph.node}`)) sweepParagraph(planner, paragraph, story.role)
  planner.sweep()
  planner.reread()
  planner.forgetAutomatic()
  const holders = given.flatMap(each => (each.folded ? [each.holder] : []))
  const ranges = holders.flatMap(({ members }) =>
    members.map(({ paragraph: { part, node } }) => ({ part, node, from: 0, to: 10_000_000 })),
  )
  if (ranges.length === 0) return
  settle(planner, planner.stretches({ kind: 'ranges', ranges }), {
    groups: typeGroups.filter(group => group !== 'language' && group !== 'revision'),
    keep: meantGroups.filter(group => group !== 'language'),
    idleOnly: false,
    // Cells are taken along with the text in them.
    frames: holders.filter(each => each.family === 'graphic' && each.members.length === each.paragraphs.length),
  })
}
