import type { Census, Occurrence } from '~~/core/census/census'
import type { DocumentIds } from '~~/core/document/open'
import type { FaceRecord } from '~~/core/font/face'
import type { SwapPlan, SwapRequest } from '~~/core/plan/plan'
import type { DisplayPage } from '~~/core/typeset/display'

/** Which state of the document: as it is, or as the plan would make it. */
export type Side = 'now' | 'after'

export interface SheetSize { readonly width: number, readonly height: number, readonly number: string }

/** A document whose first page can be looked at; the others are set next. */
export interface Opened { readonly sheets: readonly SheetSize[], readonly signed: boolean }

/** All of its pages, and what is on them. */
export interface Counted { readonly sheets: readonly SheetSize[], readonly census: Census }

/** A page to draw, with the outlines of glyphs that were not sent before, and each run's face and voice. */
export interface Drawn { readonly page: DisplayPage, readonly outlines: readonly { readonly face: string, readonly glyph: number, readonly path: string }[], readonly faces: readonly string[], readonly voices: readonly string[] }

export interface Planned { readonly plan: SwapPlan, readonly sheets: readonly SheetSize[], readonly milliseconds: number }

/** What can be asked of the worker, and what it answers. */
export interface Asks {
  open: { ask: { bytes: Uint8Array, ids: DocumentIds, faces: readonly FaceRecord[] }, answer: Opened }
  count: { ask: Record<string, never>, answer: Counted }
  page: { ask: { side: Side, index: number }, answer: Drawn }
  occurrences: { ask: { key: string, of: 'face' | 'voice' }, answer: readonly Occurrence[] }
  plan: { ask: { request: SwapRequest }, answer: Planned }
  picture: { ask: { href: string }, answer: ImageBitmap | null }
}
export type AskName = keyof Asks
export interface Ask<N extends AskName = AskName> { readonly id: number, readonly name: N, readonly ask: Asks[N]['ask'] }
export type Answer = { readonly ready: true } | { readonly id: number, readonly answer: unknown } | { readonly id: number, readonly failure: string }
