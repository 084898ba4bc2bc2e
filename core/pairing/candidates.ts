import type { CatalogueEntry } from '../font/catalogue'
import type { CoveredScript } from '../font/measure/covered-scripts'
import type { LicenceUse } from '../font/licence'
import { inDetail, inProportions } from '../font/likeness'

/** What the second face of a pair is for. */
export const pairRoles = ['heading', 'body'] as const
export type PairRole = (typeof pairRoles)[number]

/** What faces must have to come up at all. */
export interface PairNeeds {
  readonly role: PairRole
  readonly scripts: readonly CoveredScript[]
  readonly uses: readonly LicenceUse[]
}

/** Where a family stands in the plane around a given one: near it in proportions and in detail at the origin. */
export interface Candidate {
  readonly entry: CatalogueEntry
  /** 0 is the same skeleton, 1 as far as faces get apart. */
  readonly proportions: number
  readonly detail: number
  /** Too alike in both to be told apart, and not the same: what reads as a mistake. */
  readonly mistake: boolean
}

/** Steps at which faces count as wholly apart: beyond, nobody sees a difference of distances. */
const farthest = { proportions: 3, detail: 4 } as const
/** Nearer than this in both, a reader takes one face for the other badly set. Shares of the farthest. */
export const mistakeWithin = { proportions: 0.3, detail: 0.26 } as const

const share = (distance: number, most: number) => Math.round(Math.min(distance / most, 1) * 1000) / 1000

/** Whether a family can take a role at all, or why not, in words. */
export function whyNot(entry: CatalogueEntry, { role, scripts, uses }: PairNeeds): string | null {
  const missing = scripts.filter(script => !entry.scripts.includes(script))
  if (missing.length > 0) return `has no ${missing.join(', ')}`
  const forbidden = uses.filter(use => entry.licence.uses.find(each => each.use === use)!.right !== 'allowed')
  if (forbidden.length > 0) return `its licence does not say that it may be used for ${forbidden.join(', ')}`
  if (role === 'body') {
    const fit = entry.fitness.find(each => each.use === 'long reading')!
    if (!fit.fit) return `not fit for long reading: ${fit.reason}`
    if (!entry.hasItalic && !entry.weights.some(weight => weight >= 600)) return 'has neither italics nor a bold'
  }
  return null
}

/** Where a family stands around a given one. */
export function placeOf(given: CatalogueEntry, entry: CatalogueEntry): Candidate {
  const [one, other] = [given.plain.measures, entry.plain.measures]
  const proportions = share(inProportions(one, other).distance, farthest.proportions)
  const detail = share(inDetail(one, other).distance, farthest.detail)
  const mistake = proportions < mistakeWithin.proportions && detail < mistakeWithin.detail
  return { entry, proportions, detail, mistake }
}

/**
 * The families that could go with a given one, at their places in the plane around it. The given family is not among
 * them: one family in two roles is a pair without a question.
 */
export function candidates(entries: readonly CatalogueEntry[], given: CatalogueEntry, needs: PairNeeds): Candidate[] {
  return entries
    .filter(entry => entry.family !== given.family && whyNot(entry, needs) === null)
    .map(entry => placeOf(given, entry))
}

/** Candidates in the order in which they lie near a place of the plane; mistakes last. */
export function nearestTo(
  all: readonly Candidate[],
  at: { readonly proportions: number; readonly detail: number },
): Candidate[] {
  const away = (each: Candidate) =>
    Math.hypot(each.proportions - at.proportions, each.detail - at.detail) + (each.mistake ? 2 : 0)
  return [...all].sort((a, b) => away(a) - away(b) || a.entry.family.localeCompare(b.entry.family))
}

/**
 * The place that most pairs of the trade are looked for at: near in proportions, so that lines of both sit together, and
 * apart in detail, so that the difference is meant.
 */
export const usualPlace = { proportions: 0.2, detail: 0.6 } as const
