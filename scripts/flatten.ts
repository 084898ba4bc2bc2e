import { AutomaticStyles } from '../core/document/automatic-styles'
import { Change } from '../core/document/draft'
import { assignParagraph, assignStyle, setOutlineLevel } from '../core/document/paragraph-verbs'
import { styledWithin } from '../core/document/span-places'
import { dropStyle } from '../core/document/style-verbs'
import { attributesOfLook } from '../core/change/draw-up/model'
import { lookOf, paragraphLookOf } from '../core/change/draw-up/look'
import { allParagraphs, standingParagraphs } from '../core/document/stories'
import { DocumentSession } from '../core/session'
import { paragraphRuns } from '../core/style/runs'

/** What a paragraph was before it was flattened. */
export interface Was {
  readonly node: number
  readonly part: string
  readonly style: string
  readonly look: string
  readonly heading: number | null
}

/**
 * A document as somebody would make it who sets everything by hand: no named styles, no headings, every paragraph and
 * every stretch of words with all its values set on it.
 */
export function flatten(session: DocumentSession): { readonly session: DocumentSession; readonly was: Was[] } {
  const { reading } = session
  const change = new Change(session.document)
  const automatics = new Map<string, AutomaticStyles>()
  const automatic = (part: string) => {
    let own = automatics.get(part)
    if (!own) automatics.set(part, (own = new AutomaticStyles(change.on(part))))
    return own
  }
  const was: Was[] = []
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const { part, node } = paragraph
    const style = reading.cascade.paragraph(paragraph, story.role)
    const { runs } = paragraphRuns(paragraph, reading.cascade, story.role)
    const look = lookOf(style.text.effective)
    const { text, paragraph: leading } = attributesOfLook(look)
    const name = automatic(part).derive('paragraph', null, {
      text,
      paragraph: { ...paragraphLookOf(style.properties), ...leading },
    })
    if (runs.length > 0)
      was.push({
        node,
        part,
        style: style.named,
        look: JSON.stringify(Object.entries(look).sort()),
        heading: paragraph.heading,
      })
    const draft = change.on(part)
    assignParagraph(draft, node, name)
    for (const bearer of styledWithin(draft.part, node, 0, 1e7)) {
      const run = runs.find(each => {
        for (let id: number = each.node; id >= 0; id = draft.part.node(id).parent) if (id === bearer.node) return true
        return false
      })
      if (run)
        assignStyle(
          draft,
          bearer.node,
          automatic(part).derive('text', null, { text: attributesOfLook(lookOf(run.style.effective)).text }),
        )
    }
    if (paragraph.heading !== null) setOutlineLevel(draft, node, null)
  }
  const styles = change.on(session.document.subdocuments[0]!.styles!)
  const holder = styles.part.first(styles.part.rootElement, 'office:styles')!
  for (const element of [...styles.part.elements(holder, 'style:style')])
    if (/^(paragraph|text)$/.test(element.attributes['style:family'] ?? '')) dropStyle(styles, element.id)
  return { session: new DocumentSession(change.document, session.typesetter), was }
}

/** How well drawing up finds again what was flattened. */
export function foundAgain(
  before: readonly Was[],
  after: DocumentSession,
): { readonly grouped: number; readonly headings: number } {
  const now = new Map(
    [...allParagraphs(after.reading)].map(({ paragraph, story }) => [
      `${paragraph.part}#${paragraph.node}`,
      { name: after.reading.cascade.paragraph(paragraph, story.role).named, heading: paragraph.heading },
    ]),
  )
  // Styles that look alike are one: what is flattened cannot tell them apart.
  const pairs = before.map(each => ({ was: each.look, is: now.get(`${each.part}#${each.node}`)?.name ?? '', each }))
  const most = <K>(list: readonly K[]) => {
    const counts = new Map<K, number>()
    for (const each of list) counts.set(each, (counts.get(each) ?? 0) + 1)
    return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0]
  }
  const by = <K extends 'was' | 'is'>(key: K) => {
    const groups = new Map<string, string[]>()
    for (const pair of pairs)
      groups.set(pair[key], [...(groups.get(pair[key]) ?? []), pair[key === 'was' ? 'is' : 'was']])
    return new Map([...groups].map(([name, list]) => [name, most(list)]))
  }
  const [is, wasOf] = [by('was'), by('is')]
  const grouped = pairs.filter(pair => is.get(pair.was) === pair.is && wasOf.get(pair.is) === pair.was).length
  const headings = before.filter(each => each.heading !== null)
  const found = (each: Was) => now.get(`${each.part}#${each.node}`)?.heading ?? null
  // Levels that a document skips are not seen in how it looks; a first level that stands on a title page is a title.
  const levels = [...new Set(headings.map(each => each.heading!))].sort((a, b) => a - b)
  const ofFirst = headings.filter(each => each.heading === levels[0])
  const asTitle = ofFirst.filter(each => found(each) === null).length * 2 > ofFirst.length
  const expected = (each: Was) => {
    const rank = levels.indexOf(each.heading!) + (asTitle ? 0 : 1)
    return rank === 0 ? null : rank
  }
  const right = headings.filter(each => found(each) === expected(each)).length
  return {
    grouped: pairs.length === 0 ? 1 : grouped / pairs.length,
    headings: headings.length === 0 ? 1 : right / headings.length,
  }
}
