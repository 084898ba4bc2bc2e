import type { Frame, Inline, Paragraph, Story } from '../document/story-model'
import type { Cascade } from '../style/cascade'
import type { Edges } from './geometry'
import type { Line } from './lines'
import type { Typesetter } from './look'
import type { Labels } from './numbering'
import type { ParagraphLook } from './paragraph-look'
import type { PictureSize } from './pictures'
import type { SetGlyphs } from './set-glyphs'
import type { SetText } from './setting'

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
