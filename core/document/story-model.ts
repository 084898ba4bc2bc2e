/* What stories are made of, whoever reads or writes them. Offsets count UTF-16 units. */

/** Where text stands, as a reader would say it. */
export type Place = 'body' | 'frame' | 'table' | 'header' | 'note' | 'chart' | 'annotation' | 'deletion'

/** A span, link or other element around text that may carry a text style; innermost first by `parent`. */
export interface Span {
  readonly node: number
  readonly styleName: string | null
  readonly classNames: readonly string[]
  readonly parent: Span | null
}

/** What holds paragraphs and has a say in how they look; innermost first by `parent`. */
export type Holder =
  | {
      readonly kind: 'frame'
      readonly node: number
      readonly graphicStyle: string | null
      readonly textStyle: string | null
      readonly parent: Holder | null
    }
  | {
      readonly kind: 'cell'
      readonly node: number
      readonly styleName: string | null
      readonly heading: boolean
      /** It stands in the first of several rows. */
      readonly first: boolean
      readonly template: CellTemplate | null
      readonly parent: Holder | null
    }
  | {
      readonly kind: 'chart-text'
      readonly node: number
      readonly styleNames: readonly string[]
      readonly parent: Holder | null
    }

/**
 * The table template that a cell goes by (table:table-template, ODF 1.4 part 3, 16.18), and its parts that apply to
 * it, weakest first.
 */
export interface CellTemplate {
  readonly name: string
  readonly parts: readonly string[]
}

/** Where a paragraph stands in a list. */
export interface ListItem {
  /** The outermost text:list, which carries the numbering on. */
  readonly list: number
  readonly styleName: string | null
  /** 1 to 10. */
  readonly level: number
  readonly item: number
  /** The first paragraph of its item bears the label. */
  readonly labelled: boolean
  readonly startValue: number | null
  /** Its list goes on with the one before it of the same style. */
  readonly continues: boolean
  /** The outermost list that its list goes on with, by its node; null where it names none. */
  readonly continuesList: number | null
  /** Its own level goes on where that level stood before a higher one went on. */
  readonly continuesLevel: boolean
}

export type Inline =
  /** Text after white-space processing. `offset` counts UTF-16 units of the paragraph's text before it. */
  | {
      readonly kind: 'text'
      readonly node: number
      readonly text: string
      readonly span: Span | null
      readonly field: string | null
    }
  | {
      readonly kind: 'space' | 'tab' | 'break'
      readonly node: number
      readonly text: string
      readonly span: Span | null
    }
  | { readonly kind: 'frame'; readonly frame: Frame; readonly span: Span | null }
  | {
      readonly kind: 'note'
      readonly node: number
      readonly endnote: boolean
      readonly citation: string
      readonly span: Span | null
      readonly blocks: readonly Block[]
    }
  | { readonly kind: 'annotation'; readonly node: number; readonly blocks: readonly Block[] }

export interface Paragraph {
  readonly kind: 'paragraph'
  readonly part: string
  readonly node: number
  readonly place: Place
  readonly styleName: string | null
  readonly classNames: readonly string[]
  /** Outline level of a heading, 1 and up; null for a paragraph. */
  readonly heading: number | null
  readonly list: ListItem | null
  readonly holder: Holder | null
  readonly inlines: readonly Inline[]
  /** Where it holds nothing: the first of the spans in it that hold nothing. Its empty line is set in that. */
  readonly mark: Span | null
}

export interface Cell {
  readonly node: number
  readonly styleName: string | null
  readonly columnSpan: number
  readonly rowSpan: number
  readonly covered: boolean
  readonly template: CellTemplate | null
  readonly blocks: readonly Block[]
}

export interface Row {
  readonly node: number
  readonly styleName: string | null
  readonly heading: boolean
  readonly cells: readonly Cell[]
}

export interface Table {
  readonly kind: 'table'
  readonly part: string
  readonly node: number
  readonly styleName: string | null
  readonly columns: readonly { readonly styleName: string | null }[]
  readonly rows: readonly Row[]
}

export interface Frame {
  readonly kind: 'frame'
  readonly part: string
  readonly node: number
  readonly shape: string
  readonly name: string
  readonly graphicStyle: string | null
  readonly anchor: string
  readonly content: 'text' | 'image' | 'object' | 'group' | 'none'
  readonly href: string | null
  /**
   * What a placeholder is for (presentation:class, ODF 1.4 part 3, 19.391): title, outline, notes …; '' for all
   * else.
   */
  readonly placeholder: string
  readonly blocks: readonly Block[]
}

export type Block =
  | Paragraph
  | Table
  | Frame
  | {
      readonly kind: 'section'
      readonly node: number
      readonly styleName: string | null
      readonly blocks: readonly Block[]
    }

/**
 * A story: text that reads on from block to block. Notes, frames and annotations stand inside, where they are
 * anchored.
 */
export interface Story {
  readonly part: string
  readonly node: number
  readonly place: Place
  /** What it is called for people, for instance “Header of master page Standard”. */
  readonly title: string
  /** The master page it belongs to, and where on it. */
  readonly master: string | null
  readonly role:
    | 'body'
    | 'header'
    | 'header-left'
    | 'header-first'
    | 'footer'
    | 'footer-left'
    | 'footer-first'
    | 'chart'
    | 'deletions'
    | 'master'
    | 'page'
    | 'notes'
    | 'master-notes'
    | 'handout'
  readonly blocks: readonly Block[]
  /** Of a body: which blocks came from each of its child elements, so that they can be kept when others change. */
  readonly origins: ReadonlyMap<number, readonly Block[]> | null
}
