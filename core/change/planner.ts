import { occurrencesOf } from '../census/occurrences'
import { AutomaticStyles } from '../document/automatic-styles'
import { Change, type Draft } from '../document/draft'
import { partOf, type OdfDocument } from '../document/open'
import { readRules, type Rules } from '../document/rules'
import { paragraphsOf, type Paragraph, type Story } from '../document/stories'
import { findStyle, type Style, type StyleScope } from '../document/styles'
import type { Library } from '../font/library'
import type { TextStyle } from '../style/cascade'
import { paragraphRuns, paragraphText } from '../style/runs'
import type { Slot } from '../document/font-attributes'
import { readDocument, type Reading } from '../typeset/compose'
import { PlanError } from './plan'
import type { StyleRow } from './styles/plan'
import type { TextScope } from './styles/wishes'

/** A stretch of a paragraph that a wish is about. */
export interface Stretch {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly from: number
  readonly to: number
  readonly whole: boolean
}

/** All text that goes through one automatic style. */
export interface StyleUsers {
  readonly styles: Map<TextStyle, Set<Slot>>
  characters: number
}

const keyOf = (part: string, node: number) => `${part}#${node}`

/** What the wishes of one plan share while it is made: the document as far as it has come, and the rows. */
export class StylePlanner {
  readonly change: Change
  reading: Reading
  readonly rows: StyleRow[] = []
  readonly left: { what: string; reason: string; count: number }[] = []
  readonly struck: ReadonlySet<string>
  private readonly automatics = new Map<string, AutomaticStyles>()
  private users: Map<string, StyleUsers> | null = null
  /** The rules as they shall be; null while they are as they were. */
  rules: Rules | null = null

  /** @param counts whether rows shall say how much text they are about: a preview need not know */
  constructor(
    document: OdfDocument,
    reading: Reading,
    readonly library: Library,
    struck: readonly string[] = [],
    readonly counts = true,
  ) {
    this.change = new Change(document)
    this.reading = reading
    this.struck = new Set(struck)
  }

  get document(): OdfDocument {
    return this.change.document
  }

  /** Reads what was changed since: the next wish finds the document as the one before left it. */
  reread(): void {
    if (this.reading.document === this.document) return
    this.reading = readDocument(this.document, this.reading)
    this.users = null
  }

  automatic(path: string): AutomaticStyles {
    let styles = this.automatics.get(path)
    if (!styles) this.automatics.set(path, (styles = new AutomaticStyles(this.change.on(path))))
    return styles
  }

  sweep(): void {
    for (const styles of this.automatics.values()) styles.sweep()
  }

  /** The draft of the part that holds common styles. @throws PlanError where the document has none */
  get common(): Draft {
    const path = this.document.subdocuments[0]!.styles
    if (path === null)
      throw new PlanError(
        'This document has no part for named styles, so none can be made or changed. Nothing was changed.',
      )
    return this.change.on(path)
  }

  /** The scope of the part with common styles. */
  get scope(): StyleScope {
    return this.reading.cascade.scope(this.common.path)
  }

  /** A common style by family and name. @throws PlanError */
  style(family: string, name: string): Style {
    const style = this.scope.common.get(`${family}\n${name}`)
    if (!style)
      throw new PlanError(
        `This document has no ${family === 'text' ? 'character' : family} style “${name}” any more. Nothing was changed.`,
      )
    return style
  }

  note(what: string, reason: string, count = 1): void {
    const known = this.left.find(each => each.what === what && each.reason === reason)
    if (known) known.count += count
    else this.left.push({ what, reason, count })
  }

  get currentRules(): Rules {
    return (this.rules ??= readRules(this.document))
  }

  /** All paragraphs of the document, with the role of their story. */
  *paragraphs(): Generator<{ readonly paragraph: Paragraph; readonly story: Story }> {
    for (const story of this.reading.stories)
      for (const paragraph of paragraphsOf(story.blocks)) yield { paragraph, story }
  }

  /** The stretches of text that a scope means. */
  stretches(scope: TextScope): Stretch[] {
    const found: Stretch[] = []
    const put = (paragraph: Paragraph, story: Story, from = 0, to = Infinity) => {
      const { length } = paragraphText(paragraph)
      found.push({
        paragraph,
        role: story.role,
        from: Math.min(from, length),
        to: Math.min(to, length),
        whole: from <= 0 && to >= length,
      })
    }
    switch (scope.kind) {
      case 'document':
        for (const { paragraph, story } of this.paragraphs()) if (story.role !== 'deletions') put(paragraph, story)
        break
      case 'story':
        for (const story of this.reading.stories) {
          const own = paragraphsOf(story.blocks)
          if (own.some(paragraph => paragraph.part === scope.part && paragraph.node === scope.node))
            for (const paragraph of own) put(paragraph, story)
        }
        break
      case 'style':
        for (const { paragraph, story } of this.paragraphs()) {
          if (scope.family === 'paragraph') {
            if (this.reading.cascade.paragraph(paragraph, story.role).text.owner?.style.name === scope.name)
              put(paragraph, story)
            continue
          }
          for (const run of paragraphRuns(paragraph, this.reading.cascade, story.role).runs) {
            const { owner } = run.style
            if (owner?.style.family === 'text' && owner.style.name === scope.name)
              put(paragraph, story, run.start, run.end)
          }
        }
        break
      case 'voice': {
        for (const { paragraph, story, from, to } of occurrencesOf(this.reading, scope.key))
          put(paragraph, story, from, to)
        break
      }
      case 'frame': {
        const part = partOf(this.document, scope.part)
        for (const { paragraph, story } of this.paragraphs()) {
          if (paragraph.part !== scope.part) continue
          for (let id = paragraph.node; id >= 0; id = part.node(id).parent)
            if (id === scope.node) {
              put(paragraph, story)
              break
            }
        }
        break
      }
      case 'loose-frames':
        for (const { paragraph, story } of this.paragraphs()) {
          if (story.role === 'deletions' || (paragraph.place !== 'frame' && story.role !== 'page')) continue
          let holder = paragraph.holder
          while (holder && holder.kind !== 'frame') holder = holder.parent
          if (!holder) continue
          const { attributes } = partOf(this.document, paragraph.part).element(holder.node)
          if (attributes['presentation:class'] === undefined && attributes['presentation:style-name'] === undefined)
            put(paragraph, story)
        }
        break
      case 'ranges': {
        const byKey = new Map(
          [...this.paragraphs()].map(each => [keyOf(each.paragraph.part, each.paragraph.node), each]),
        )
        for (const range of scope.ranges) {
          const own = byKey.get(keyOf(range.part, range.node))
          if (!own) throw new PlanError('The selected text is no longer in the document. Nothing was changed.')
          put(own.paragraph, own.story, range.from, range.to)
        }
        break
      }
    }
    if (found.length === 0 && scope.kind !== 'document')
      throw new PlanError('There is no text that this is about. Nothing was changed.')
    return found
  }

  /** All text that goes through a style, by the style's place. */
  usersOf(style: { readonly part: string; readonly node: number }): StyleUsers | undefined {
    if (!this.users) {
      this.users = new Map()
      const counted = new Map<TextStyle, StyleUsers[]>()
      const add = (text: TextStyle, slot: Slot, characters: number) => {
        let all = counted.get(text)
        if (!all) {
          counted.set(text, (all = []))
          for (const layer of text.effective.layers) {
            const key = keyOf(layer.style.part, layer.style.node)
            let users = this.users!.get(key)
            if (!users) this.users!.set(key, (users = { styles: new Map(), characters: 0 }))
            all.push(users)
          }
        }
        for (const users of all) {
          users.characters += characters
          const known = users.styles.get(text)
          if (known) known.add(slot)
          else users.styles.set(text, new Set([slot]))
        }
      }
      for (const { paragraph, story } of this.paragraphs()) {
        const { runs } = paragraphRuns(paragraph, this.reading.cascade, story.role)
        for (const run of runs) add(run.style, run.slot, run.end - run.start)
        // A paragraph without text has its mark, which is seen as an empty line.
        if (runs.length === 0) add(this.reading.cascade.paragraph(paragraph, story.role).text, 'western', 0)
      }
    }
    return this.users.get(keyOf(style.part, style.node))
  }

  /** How a style is called: for automatic ones what they are based on. */
  titleOf(scope: StyleScope, family: string, name: string | null): string {
    return (name === null ? undefined : findStyle(scope, family, name))?.displayName ?? (name || 'no style')
  }
}
