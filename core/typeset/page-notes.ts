import type { Inline } from '../document/story-model'
import type { Ground, NoteArea } from './columns'
import { shifted, type Fragment } from './fragments'
import type { PageGeometry } from './geometry'

export type Note = Extract<Inline, { kind: 'note' }>

/** A note as it stands at the foot of a page. Height in points. */
export interface NoteBox {
  readonly height: number
  readonly fragments: readonly Fragment[]
}

/** The notes at a page's foot. */
export class PageNotes implements NoteArea {
  readonly placed: { readonly note: Note; readonly height: number; readonly fragments: readonly Fragment[] }[] = []
  height = 0

  constructor(
    private readonly compose: (note: Note) => NoteBox,
    private readonly separator: number,
  ) {}

  heightWith(notes: readonly Note[]): number {
    const more = notes
      .filter(note => !this.placed.some(each => each.note === note))
      .reduce((sum, note) => sum + this.compose(note).height, 0)
    return more === 0 ? this.height : (this.height || this.separator) + more
  }

  add(notes: readonly Note[]): void {
    for (const note of notes) {
      if (this.placed.some(each => each.note === note)) continue
      const { height, fragments } = this.compose(note)
      this.height = (this.height || this.separator) + height
      this.placed.push({ note, height, fragments })
    }
  }
}

/** The notes at a page's foot, with the line above them. */
export function notesAtFoot(notes: PageNotes, inner: Ground['inner'], footnote: PageGeometry['footnote']): Fragment[] {
  const into: Fragment[] = []
  if (notes.placed.length === 0) return into
  let y = inner.y + inner.height - notes.height + footnote.before
  const lineWidth = inner.width * footnote.relativeWidth
  const x =
    inner.x +
    (footnote.align === 'right'
      ? inner.width - lineWidth
      : footnote.align === 'center'
        ? (inner.width - lineWidth) / 2
        : 0)
  if (footnote.thickness > 0 && lineWidth > 0)
    into.push({
      kind: 'box',
      fill: footnote.color,
      stroke: '',
      strokeWidth: 0,
      x,
      y,
      width: lineWidth,
      height: footnote.thickness,
    })
  y += footnote.thickness + footnote.after
  for (const { fragments, height } of notes.placed) {
    into.push(...shifted(fragments, inner.x, y))
    y += height
  }
  return into
}
