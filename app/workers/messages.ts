import type { AbsentFace, AbsentPlace } from '~~/core/census/absent-model'
import type { Census } from '~~/core/census/census'
import type { FaceKerning } from '~~/core/census/kerning'
import type { Occurrence } from '~~/core/census/occurrence'
import type { LookCriteria } from '~~/core/census/criteria'
import type { StandIn } from '~~/core/font/library'
import type { Suggestion } from '~~/core/font/suggest'
import type { RepairOption, RepairTarget } from '~~/core/change/repair/target'
import type { Edit, Edits } from '~~/core/document/edits'
import type { FrameTextState } from '~~/core/style/frame-text'
import type { DocumentIds } from '~~/core/document/open'
import type { FaceMeasures, FaceRecord } from '~~/core/font/face'
import type { PlacedRemark } from '~~/core/desk/remark-places'
import type { Annotation } from '~~/core/remarks/annotations'
import type { Stretch } from '~~/core/remarks/find-place'
import type { RemarkPlace, TextPlace } from '~~/core/remarks/remark'
import type { WishList } from '~~/core/change/plan'
import type { RecordedPlan } from '~~/shared/api'
import type { ListedChartText } from '~~/core/change/chart-text/chart-list'
import type { ListedLevel } from '~~/core/change/levels/level-list'
import type { Wish } from '~~/core/change/registry'
import type { Comparison } from '~~/core/compare/compare'
import type { Rehearsal } from '~~/core/compare/rehearse'
import type { MadeFor } from '~~/core/font/held-licence'
import type { House } from '~~/core/house/house'
import type { HouseBefore, ProposedPaint } from '~~/core/house/house-paints'
import type { BeyondLimit } from '~~/core/house/limits'
import type { ToStyle } from '~~/core/house/to-style'
import type { Checklist } from '~~/core/proof/checklist'
import type { Proof } from '~~/core/proof/finding'
import type { ProposedStyle } from '~~/core/change/draw-up/list-proposals'
import type { DrawUpChoice } from '~~/core/change/draw-up/wish'
import type { LeadInRule, PatternRule, Rules } from '~~/core/document/rules'
import type { RulePreview } from '~~/core/change/rules/rule-preview'
import type { FaceTried } from '~~/core/change/set-type/try-face'
import type { SetTypeWish } from '~~/core/change/set-type/wish'
import type { SetPiece } from '~~/core/style/set-piece'
import type { StartSummary } from '~~/core/change/defaults/start-list'
import type { StyleGround } from '~~/core/proof/style-grounds'
import type { StyleFamily } from '~~/core/style/families'
import type { StyleDetail } from '~~/core/change/styles/style-detail'
import type { StyleSummary } from '~~/core/change/styles/style-list'
import type { TracedText } from '~~/core/change/styles/trace-at'
import type { Spot, TextRange } from '~~/core/typeset/caret'
import type { DisplayPage } from '~~/core/typeset/display'
import type { PlainParagraph, PlainStory } from '~~/core/desk/plain-text'
import type { Copied } from '~~/core/desk/word-desk'
import type { FoundText } from '~~/core/change/find'
import type { PageView } from '~~/core/typeset/drawing-pages'
import type { Move } from '~~/core/typeset/text-walk'

/** Which state of the document: as it is (`now`), or as a plan would make it, by the plan's id. */
export type Side = string

export interface SheetSize {
  readonly width: number
  readonly height: number
  readonly number: string
  readonly name: string
}

/** The sheets of every view: the pages, those of speaker notes, and the masters. */
export type Sheets = Readonly<Record<PageView, readonly SheetSize[]>>

/** A document whose first page can be looked at; the others are set next. */
export interface Opened {
  readonly sheets: readonly SheetSize[]
  readonly signed: boolean
}

/** All of its pages, and what is on them. */
export interface Counted {
  readonly sheets: Sheets
  readonly census: Census
}

/** A page to draw, with the outlines of glyphs that were not sent before, and each run's face and voice. */
export interface Drawn {
  readonly page: DisplayPage
  readonly outlines: readonly { readonly face: string; readonly glyph: number; readonly path: string }[]
  readonly faces: readonly string[]
  /** Each run's family, as the document names it. */
  readonly families: readonly string[]
  readonly voices: readonly string[]
  /** Of each run: local formatting makes it depart from its styles. */
  readonly strays: readonly boolean[]
}

/** An absent family, what could take its place, and a few of its own words to show that in. */
export interface AbsentEntry extends AbsentFace {
  readonly suggestions: readonly Suggestion[]
  readonly sample: string
}
export interface AbsentAnswer {
  readonly faces: readonly AbsentEntry[]
  readonly places: readonly AbsentPlace[]
}

/** A plan, with its sheets where its pages were set. */
export interface Planned {
  readonly plan: RecordedPlan
  readonly sheets: readonly SheetSize[] | null
  readonly milliseconds: number
}

/** What can be asked of the worker, and what it answers. */
export interface Asks {
  open: {
    ask: {
      bytes: Uint8Array
      ids: DocumentIds
      faces: readonly FaceRecord[]
      /** Hashes of faces that it will be set in, as far as is known: they are fetched side by side. */
      expected: readonly string[]
      standIns: readonly StandIn[]
      state: number
    }
    answer: Opened
  }
  /** Where the words of remarks are now, in their order. */
  remarkPlaces: { ask: { places: readonly (RemarkPlace | null)[] }; answer: PlacedRemark[] }
  /** What a remark about selected text would be about. */
  quote: { ask: { range: Stretch }; answer: TextPlace | null }
  /** What was written at the margins before the document came here. */
  annotations: { ask: Record<string, never>; answer: Annotation[] }
  /** null where the text was changed while it was counted. */
  count: { ask: Record<string, never>; answer: Counted | null }
  page: { ask: { side: Side; view: PageView; index: number }; answer: Drawn }
  occurrences: { ask: { key: string; of: 'face' | 'voice' }; answer: readonly Occurrence[] }
  /**
   * Plans wishes; the document after them is kept under the plan's id. Without `effects` only pages that are looked at
   * are set.
   */
  plan: { ask: { id: string; request: WishList; effects: boolean }; answer: Planned }
  /** Lets go of what a plan made. */
  drop: { ask: { id: string }; answer: null }
  /** Answers when all that was asked before is answered. */
  stand: { ask: Record<string, never>; answer: null }
  /** Ways to mend a paragraph or frame of a plan. */
  repairs: { ask: { id: string; target: RepairTarget }; answer: readonly RepairOption[] }
  /**
   * Absent families with their places, and what could take their place; `known` are measures of font files that
   * came along.
   */
  absent: { ask: { known: Readonly<Record<string, FaceMeasures>> }; answer: AbsentAnswer }
  /** How many lines more or fewer the document has with another family in place of one. */
  linesWith: { ask: { family: string; to: string }; answer: number }
  /** What some text looks like, as criteria, and what it says. */
  criteriaAt: {
    ask: { ranges: readonly TextRange[] }
    answer: { readonly look: LookCriteria; readonly text: string } | null
  }
  /**
   * A picture of the package: ready to be drawn, or as SVG; neither where it is absent, or of a kind that is not
   * shown.
   */
  picture: {
    ask: { href: string }
    answer: { readonly bitmap: ImageBitmap | null; readonly svg: Uint8Array | null; readonly absent: boolean }
  }
  /** Edits the document here and now; what the server needs to do the same comes back. */
  edit: { ask: { edits: readonly Edit[] }; answer: { readonly edits: Edits; readonly made: number | null } }
  /** The document as it is now belongs to this state of the server's versions. */
  keep: { ask: { state: number }; answer: null }
  /** Goes back to a state that is still here; false where it is not. */
  back: { ask: { state: number }; answer: boolean }
  move: { ask: { spot: Spot; move: Move }; answer: Spot }
  /** The place nearest to one that may be gone; null where its paragraph is. */
  clamp: { ask: { spot: Spot }; answer: Spot | null }
  word: { ask: { spot: Spot }; answer: { readonly from: number; readonly to: number } }
  ranges: { ask: { one: Spot; other: Spot }; answer: readonly TextRange[] }
  /** The whole text that a paragraph belongs to, as two places. */
  whole: { ask: { part: string; node: number }; answer: readonly [Spot, Spot] }
  /** Which of some paragraphs stand in the same text as one. */
  together: { ask: { part: string; node: number; others: readonly number[] }; answer: readonly number[] }
  /** The paragraph before or behind one in its text; null where there is none. */
  beside: { ask: { part: string; node: number; step: 1 | -1 }; answer: Spot | null }
  copy: { ask: { ranges: readonly TextRange[] }; answer: Copied }
  where: {
    ask: { spot: Spot; view: PageView; near: number }
    answer: { readonly view: PageView; readonly page: number } | null
  }
  find: { ask: { text: string; matchCase: boolean }; answer: readonly FoundText[] }
  stories: { ask: Record<string, never>; answer: readonly PlainStory[] }
  paragraphs: { ask: { from: number; to: number }; answer: readonly PlainParagraph[] }
  /** The frame or shape that a paragraph stands in; null where it stands in none. */
  frameOf: { ask: { part: string; node: number }; answer: number | null }
  /** How text stands in a frame, and the text frames it could go on in. */
  frame: {
    ask: { part: string; node: number }
    answer: {
      readonly text: FrameTextState
      readonly others: readonly { readonly node: number; readonly name: string; readonly story: string }[]
    }
  }
  /** The element of a drawn page, or the first paragraph of a page of a text: what a new frame is put on. */
  holder: { ask: { view: PageView; page: number }; answer: { readonly part: string; readonly node: number } | null }
  /** The styles that drawing up would make, with what was chosen for them so far. */
  drawUp: {
    ask: {
      tolerance: number
      choices: readonly DrawUpChoice[]
      dropped: readonly Pick<DrawUpChoice, 'voice' | 'family'>[]
    }
    answer: readonly ProposedStyle[]
  }
  /** The placeholders of a deck with how they are set. */
  levels: { ask: Record<string, never>; answer: readonly ListedLevel[] }
  chartText: { ask: Record<string, never>; answer: readonly ListedChartText[] }
  /** How much of the document is as a house says, and where it is not. */
  /** In what another document, or an earlier version, and the one on the desk differ; its pages are drawn as `compare`. */
  compare: {
    ask: { bytes: Uint8Array }
    answer: { readonly comparison: Comparison; readonly sheets: readonly SheetSize[] }
  }
  /** The document as a desk with none but the systems' faces sees it; its pages are drawn as `compare`. */
  rehearse: {
    ask: Record<string, never>
    answer: { readonly rehearsal: Rehearsal; readonly sheets: readonly SheetSize[] }
  }
  /** What a proof of the document finds; null where it was changed meanwhile. */
  proof: {
    ask: { house: House | null; checklist: Checklist; madeFor: MadeFor }
    answer: Proof | null
  }
  /** The wishes that put findings of the last proof right, by their numbers. */
  proofRepairs: { ask: { findings: readonly number[] }; answer: readonly Wish[] }
  toStyle: { ask: { house: House }; answer: ToStyle }
  limits: { ask: { house: House }; answer: BeyondLimit[] }
  /** The house that the document was dressed in last, by what it keeps of it. */
  dressedIn: { ask: object; answer: Rules['house'] }
  /** Colours of shapes, lines, grounds and charts, with what they become in a house; `before`: the one it was in. */
  paints: { ask: { house: House; before: HouseBefore | null }; answer: ProposedPaint[] }
  /** What the document would come to in a face. */
  tryFace: { ask: { wish: SetTypeWish }; answer: FaceTried }
  /** The pairs of letters of the document's faces. */
  kerning: { ask: Record<string, never>; answer: readonly FaceKerning[] }
  styles: { ask: Record<string, never>; answer: readonly string[] }
  /** Named styles with what they do in the document. */
  styleList: { ask: Record<string, never>; answer: readonly StyleSummary[] }
  /** A style laid open, with the OpenType features that its face has. */
  style: {
    ask: { family: StyleFamily; name: string }
    answer: (StyleDetail<StyleFamily> & { readonly faceFeatures: readonly string[] }) | null
  }
  styleOccurrences: { ask: { family: StyleFamily; name: string }; answer: readonly Occurrence[] }
  /** The named paragraph style of a paragraph. */
  styleAt: { ask: { part: string; node: number }; answer: string | null }
  languages: {
    ask: Record<string, never>
    answer: readonly { readonly language: string; readonly characters: number }[]
  }
  /** A frame as a set piece. */
  takePiece: { ask: { part: string; node: number }; answer: SetPiece }
  starts: { ask: Record<string, never>; answer: readonly StartSummary[] }
  /** The master page of a page of a text. */
  master: { ask: { page: number }; answer: { readonly part: string; readonly node: number } | null }
  trace: { ask: { spot: Spot }; answer: TracedText | null }
  previewRule: { ask: { rule: PatternRule | LeadInRule }; answer: RulePreview }
  /** Text that a style would be seen in: of the document, where it has some. */
  /** What text stands on that takes its colour from a style. */
  styleGrounds: { ask: { family: StyleFamily; name: string }; answer: readonly StyleGround[] }
  styleSample: { ask: { family: StyleFamily; name: string }; answer: string }
}
