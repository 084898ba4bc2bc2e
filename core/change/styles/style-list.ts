import { pagesOf } from '../../census/text-pages'
import type { Role, Rules } from '../../document/rules'
import { paragraphsOf } from '../../document/stories'
import type { Style } from '../../document/styles'
import type { Library } from '../../font/library'
import { describeValues } from '../../style/describe'
import { nameHint, proposeRole } from '../../style/roles'
import { paragraphRuns } from '../../style/runs'
import type { Composition } from '../../typeset/compose'
import type { Reading } from '../../style/reading'
import { isRuleStyle } from '../rules/rule-spans'
import { styleDetail, type StyleDetail } from './style-detail'

/** How text of a style looks, for drawing its name in itself. */
export interface StyleLook {
  readonly face: string
  readonly family: string
  readonly status: string
  readonly size: number
  readonly weight: number
  readonly italic: boolean
  readonly color: string
  readonly tracking: string
  readonly case: string
  readonly decoration: string
}

/** A named style, with what it does in the document. */
export interface StyleSummary {
  readonly family: 'paragraph' | 'text'
  readonly name: string
  readonly displayName: string
  readonly parent: string | null
  /** How many parents it has. */
  readonly depth: number
  readonly next: string | null
  readonly paragraphs: number
  readonly characters: number
  readonly settledCharacters: number
  readonly pages: readonly number[]
  readonly role: Role | null
  /** The role is worked out, not confirmed. */
  readonly proposed: boolean
  readonly author: string
  /** How it departs from its parent, in a sentence. */
  readonly sentence: string
  /** Why its name says nothing; null where it does. */
  readonly hint: string | null
  readonly rules: number
  readonly look: StyleLook
}

interface Use {
  paragraphs: number
  characters: number
  settled: number
  pages: Set<number>
  places: Map<string, number>
  level: number | null
}

/**
 * Named paragraph and character styles of the document, parents before their children. Styles of rules are left
 * out: they belong to their rule.
 */
export function listStyles(reading: Reading, library: Library, composition: Composition | null): StyleSummary[] {
  const { cascade } = reading
  const rules: Rules = cascade.rules
  const scope = [...cascade.scopes.values()].at(-1)
  if (!scope) return []
  const uses = new Map<Style, Use>()
  const where = pagesOf(composition)
  const useOf = (style: Style): Use => {
    let use = uses.get(style)
    if (!use)
      uses.set(
        style,
        (use = { paragraphs: 0, characters: 0, settled: 0, pages: new Set(), places: new Map(), level: null }),
      )
    return use
  }
  for (const story of reading.stories) {
    if (story.role === 'deletions') continue
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { runs } = paragraphRuns(paragraph, cascade, story.role)
      const own = cascade
        .paragraph(paragraph, story.role)
        .text.effective.layers.findLast(layer => !layer.local && layer.from === 'paragraph')?.style
      if (own) {
        const use = useOf(own)
        use.paragraphs++
        if (paragraph.heading !== null) use.level = Math.min(use.level ?? 10, paragraph.heading)
        for (const page of where(paragraph.part, paragraph.node, 0, 1)) use.pages.add(page)
      }
      for (const run of runs) {
        const count = run.end - run.start
        const settled = run.style.settled(run.slot)
        const layers = run.style.effective.layers.filter(layer => !layer.local && layer.from === 'text')
        const inner = layers.findLast(layer => layer.style.family === 'text' && !isRuleStyle(layer.style.name))?.style
        for (const style of [own, inner]) {
          if (!style) continue
          const use = useOf(style)
          use.characters += count
          if (settled) use.settled += count
          use.places.set(paragraph.place, (use.places.get(paragraph.place) ?? 0) + count)
          if (style === inner) {
            use.paragraphs++
            for (const page of where(paragraph.part, paragraph.node, run.start, run.end)) use.pages.add(page)
          }
        }
      }
    }
  }
  const styles = [...scope.common.values()].filter(
    style => (style.family === 'paragraph' || style.family === 'text') && !isRuleStyle(style.name),
  )
  const most = styles
    .filter(style => style.family === 'paragraph')
    .reduce<Style | null>(
      (best, style) =>
        (uses.get(style)?.characters ?? 0) > (best ? (uses.get(best)?.characters ?? 0) : 0) ? style : best,
      null,
    )
  const textOf = (style: Style) => cascade.named(scope.part.path, style.family, style.name)
  const bodySize = most ? textOf(most).effective.slots.western.size : 12
  const children = new Map<string, Style[]>()
  for (const style of styles) {
    const parent =
      style.parentName !== null && scope.common.has(`${style.family}\n${style.parentName}`) ? style.parentName : ''
    const key = `${style.family}\n${parent}`
    children.set(key, [...(children.get(key) ?? []), style])
  }
  const listed: StyleSummary[] = []
  const seen = new Set<Style>()
  const list = (family: 'paragraph' | 'text', parent: string, depth: number): void => {
    for (const style of (children.get(`${family}\n${parent}`) ?? []).sort((a, b) =>
      a.displayName.localeCompare(b.displayName),
    )) {
      if (seen.has(style)) continue
      seen.add(style)
      const use = uses.get(style)
      const text = textOf(style)
      const { shared } = text.effective
      const slot =
        style.text['style:font-name-asian'] !== undefined && style.text['style:font-name'] === undefined
          ? ('asian' as const)
          : ('western' as const)
      const values = text.effective.slots[slot]
      const resolution = library.resolve({
        family: values.font.family,
        styleName: values.font.styleName,
        weight: values.weight,
        italic: values.posture !== 'normal',
        generic: values.font.generic,
        pitch: values.font.pitch,
        charset: values.font.charset,
        slot,
      })
      const kept = rules.styles.find(each => each.style.family === family && each.style.name === style.name)
      const stated = Number.parseInt(style.attributes['style:default-outline-level'] ?? '', 10)
      const proposed =
        family === 'text'
          ? null
          : proposeRole({
              name: style.displayName,
              size: text.effective.slots.western.size,
              bodySize,
              bold: values.weight >= 600,
              characters: use?.characters ?? 0,
              paragraphs: use?.paragraphs ?? 0,
              most: style === most,
              level: stated >= 1 ? stated : (use?.level ?? null),
              place: [...(use?.places ?? [])].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'body',
            })
      const words = describeValues(style.text, style.paragraph, scope)
      const parentTitle = parent === '' ? null : scope.common.get(`${family}\n${parent}`)!.displayName
      listed.push({
        family,
        name: style.name,
        displayName: style.displayName,
        parent: parent || null,
        depth,
        next: style.attributes['style:next-style-name'] ?? null,
        paragraphs: use?.paragraphs ?? 0,
        characters: use?.characters ?? 0,
        settledCharacters: use?.settled ?? 0,
        pages: [...(use?.pages ?? [])].sort((a, b) => a - b),
        role: kept?.role ?? proposed,
        proposed: kept?.role === undefined,
        author: kept?.author ?? '',
        sentence:
          words.length === 0
            ? parentTitle
              ? `As ${parentTitle}.`
              : 'Says nothing of its own.'
            : parentTitle
              ? `As ${parentTitle}, but ${words.join(', ')}.`
              : `${words.join(', ')}.`,
        hint: nameHint(style.displayName),
        rules:
          rules.patterns.filter(rule => rule.style === style.name && family === 'paragraph').length +
          rules.leadIns.filter(rule => rule.style === style.name && family === 'paragraph').length,
        look: {
          face: resolution.face.hash,
          family: values.font.family,
          status: resolution.status,
          size: values.size,
          weight: values.weight,
          italic: values.posture !== 'normal',
          color: /^#[0-9a-f]{6}$/i.test(shared['fo:color']) ? shared['fo:color'] : '',
          tracking: shared['fo:letter-spacing'],
          case: shared['fo:font-variant'] === 'small-caps' ? 'small-caps' : shared['fo:text-transform'],
          decoration:
            shared['style:text-underline-style'] !== 'none'
              ? 'underline'
              : shared['style:text-line-through-style'] !== 'none'
                ? 'line-through'
                : '',
        },
      })
      list(family, style.name, depth + 1)
    }
  }
  list('paragraph', '', 0)
  list('text', '', 0)
  return listed
}

/** A style with its summary, laid open. */
export interface ListedStyle {
  readonly summary: StyleSummary
  readonly detail: StyleDetail
}

/** All named styles laid open, for taking some of them over into another document. */
export function layOpen(reading: Reading, library: Library): ListedStyle[] {
  return listStyles(reading, library, null).flatMap(summary => {
    const detail = styleDetail(reading, summary.family, summary.name)
    return detail ? [{ summary, detail }] : []
  })
}
