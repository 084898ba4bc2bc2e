/** Text in one look, as formats without styles of their own tell it. Line ends in `text` are forced breaks. */
export interface ReadRun {
  readonly text: string
  readonly strong: boolean
  readonly emphasis: boolean
  readonly code: boolean
  readonly href: string | null
}

/** What was read of a plain text, Markdown or HTML: blocks by what they are, not by how they look. */
export type ReadBlock =
  | { readonly kind: 'paragraph' | 'quote'; readonly runs: readonly ReadRun[]; readonly style: string | null }
  | {
      readonly kind: 'heading'
      readonly level: number
      readonly runs: readonly ReadRun[]
      readonly style: string | null
    }
  /** A list's item; `depth` counts from 1. Further paragraphs of the same item have `first` false. */
  | {
      readonly kind: 'item'
      readonly depth: number
      readonly ordered: boolean
      readonly first: boolean
      readonly runs: readonly ReadRun[]
      readonly style: string | null
    }
  | { readonly kind: 'code'; readonly text: string }
  | { readonly kind: 'rule' }
  | {
      readonly kind: 'table'
      readonly head: number
      readonly rows: readonly (readonly (readonly ReadRun[])[])[]
      /** Whole shares of the width that the columns have; all alike where nothing is said. */
      readonly widths?: readonly number[]
    }

export interface ReadText {
  readonly title: string
  readonly language: string
  readonly blocks: readonly ReadBlock[]
  /** What was left out, with how often: pictures, scripts, what has no place in a text. */
  readonly left: readonly { readonly what: string; readonly count: number }[]
}

export const plainRun = (text: string): ReadRun => ({ text, strong: false, emphasis: false, code: false, href: null })
