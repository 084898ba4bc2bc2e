import { AutomaticStyles } from '../document/automatic-styles'
import { Change, type Draft } from '../document/draft'
import type { Slot } from '../document/font-attributes'
import type { OdfDocument } from '../document/open'
import { readRules, type Rules } from '../document/rules'
import type { Paragraph, Story } from '../document/story-model'
import { findStyle, type Style, type StyleScope } from '../document/styles'
import type { Library } from '../font/library'
import { DocumentSession } from '../session'
import type { TextStyle } from '../style/cascade'
import { familyName, type StyleFamily } from '../style/families'
import type { Reading } from '../style/reading'
import { paragraphRuns } from '../style/runs'
import {
  type Told,
  keyText,
  PlanError,
  type AnyWish,
  type FaceMapping,
  type MadeStyle,
  type MissingGlyph,
  type PlanRow,
  type RowKey,
  type SizeChange,
  type TextGroup,
} from './plan'
import { allParagraphs, standingParagraphs, type StoryParagraph } from '../document/stories'
import { stretchesOf, type Stretch, type TextScope } from './scope'

/** All text that goes through one automatic style. */
export interface StyleUsers {
  readonly styles: Map<TextStyle, Set<Slot>>
  characters: number
}

/** A row as a kind gives it; what is left out comes from the row's kind or the request. */
export interface NewRow {
  readonly key: RowKey
  readonly stage: string
  readonly title: string
  readonly count?: number
  readonly characters?: number
  readonly before: string
  readonly after: string
  /** Why it cannot be included. */
  readonly reason?: string | null
  /** Whether it may be left out by hand; default false: the plan stands or falls with it. */
  readonly optional?: boolean
  readonly places?: PlanRow['places']
  readonly page?: number
}

export interface PlannerOptions {
  readonly leftOut?: readonly RowKey[]
  /** Whether rows shall say how much text they are about: a preview need not know. */
  readonly counts?: boolean
  /** Plans wishes by themselves on a document and gives what comes of it, for what is found by trying. */
  readonly tryPlan?: (from: DocumentSession, wishes: readonly AnyWish[]) => DocumentSession
}

const keyOf = (part: string, node: number) => `${part}#${node}`

/** What the wishes of one plan share while it is made: the document as far as it has come, and what is told of it. */
export class Planner {
  readonly change: Change
  readonly rows: PlanRow[] = []
  readonly left: { what: string; reason: string; count: number }[] = []
  readonly titles: string[] = []
  readonly mappings: FaceMapping[] = []
  readonly groups: TextGroup[] = []
  readonly sizes: SizeChange[] = []
  readonly missingGlyphs: MissingGlyph[] = []
  readonly made: MadeStyle[] = []
  places = 0
  characters = 0
  /** The rules as they shall be; null while they are as they were. */
  rules: Rules | null = null
  private readonly leftOut: ReadonlySet<string>
  private readonly automatics = new Map<string, AutomaticStyles>()
  private users: Map<string, StyleUsers> | null = null

  /** @param found the document as the wishes that act now found it, with its pages and census where they are asked for */
  constructor(
    private found: DocumentSession,
    private readonly options: PlannerOptions = {},
  ) {
    this.change = new Change(found.document)
    this.leftOut = new Set((options.leftOut ?? []).map(keyText))
  }

  get document(): OdfDocument {
    return this.change.document
  }
  get session(): DocumentSession {
    return this.found
  }
  get reading(): Reading {
    return this.found.reading
  }
  get library(): Library {
    return this.found.typesetter.library
  }
  get counts(): boolean {
    return this.options.counts ?? true
  }

  /** Reads what was changed since: the next wish finds the document as the one before left it. */
  reread(): void {
    if (this.found.document === this.document) return
    this.found = new DocumentSession(this.document, this.found.typesetter, this.found)
    this.users = null
  }

  /** What wishes by themselves would make of the document that was found. */
  tryPlan(wishes: readonly AnyWish[]): DocumentSession {
    if (!this.options.tryPlan) throw new RangeError('this planner cannot try plans')
    return this.options.tryPlan(this.found, wishes)
  }

  /** Whether the place of a key is left out by hand. */
  leaves(key: RowKey): boolean {
    return this.leftOut.has(keyText(key))
  }

  /** Keys of a sort that are left out. */
  leftKeys(what: string): RowKey[] {
    return (this.options.leftOut ?? []).filter(key => key.what === what)
  }

  /** Lists places of one sort; whether they are to be changed. */
  row(row: NewRow): boolean {
    const { reason = null, optional = false } = row
    const included = reason === null && !(optional && this.leaves(row.key))
    this.rows.push({ count: 1, characters: 0, places: [], ...row, reason, optional, included })
    return included
  }

  /** What the rows since a number come to: places that change, and their text. */
  totals(from: number): { readonly places: number; readonly characters: number } {
    const included = this.rows.slice(from).filter(row => row.included)
    return {
      places: included.reduce((sum, row) => sum + row.count, 0),
      characters: included.reduce((sum, row) => sum + row.characters, 0),
    }
  }

  /** Does a part of another wish: what it would list is told by that wish. */
  quietly(work: () => void): void {
    const own = this.rows.length
    work()
    this.rows.length = own
  }

  tell({ titles, places, characters }: Told): void {
    this.titles.push(...titles)
    this.places += places
    this.characters += characters
  }

  note(what: string, reason: string, count = 1): void {
    const known = this.left.find(each => each.what === what && each.reason === reason)
    if (known) known.count += count
    else this.left.push({ what, reason, count })
  }

  automatic(path: string): AutomaticStyles {
    let styles = this.automatics.get(path)
    if (!styles) this.automatics.set(path, (styles = new AutomaticStyles(this.change.on(path))))
    return styles
  }

  /** Automatic styles are looked at anew: they were changed by operations of their own. */
  forgetAutomatic(): void {
    this.automatics.clear()
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
  style(family: StyleFamily, name: string): Style {
    const style = this.scope.common.get(`${family}\n${name}`)
    if (!style)
      throw new PlanError(`This document has no ${familyName(family)} “${name}” any more. Nothing was changed.`)
    return style
  }

  get currentRules(): Rules {
    return (this.rules ??= readRules(this.document))
  }

  /** All paragraphs of text that stands, with the story they stand in. */
  paragraphs(): Generator<StoryParagraph> {
    return standingParagraphs(this.reading)
  }

  /** A paragraph's text in runs of one style and slot. */
  runsOf(paragraph: Paragraph, role: Story['role']) {
    return paragraphRuns(paragraph, this.reading.cascade, role).runs
  }

  stretches(scope: TextScope): Stretch[] {
    return stretchesOf(this.reading, scope)
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
      // What is deleted may come back: its looks count, too.
      for (const { paragraph, story } of allParagraphs(this.reading)) {
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
