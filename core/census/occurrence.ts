import type { Place } from '../document/story-model'

/** One stretch of text in one voice, to walk to. */
export interface Occurrence {
  readonly part: string
  readonly node: number
  readonly start: number
  readonly end: number
  readonly page: number
  readonly face: string
  readonly voice: string
  readonly place: Place
}
