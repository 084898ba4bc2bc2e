import { listAbsent, type AbsentList } from '../census/absent'
import { takeCensus, type CensusDetail } from '../census/census'
import { openDocument, type OdfDocument } from '../document/open'
import { readRules, type LeadInRule } from '../document/rules'
import { prepareHyphenation } from '../typeset/hyphenate'
import { Composer, paragraphExtents, readDocument, type Composition, type Reading } from '../typeset/compose'
import type { PageView } from '../typeset/drawing-pages'
import type { Cascade } from '../style/cascade'
import type { Page } from '../typeset/pages'
import type { Typesetter } from '../typeset/look'
import { forgetLayouts } from '../typeset/paragraph'
import { compareCompositions } from './effects'
import { findRepairs, type RepairOption, type RepairTarget } from './repair/find-repairs'
import type { SwapPlan, SwapRequest } from './plan'
import { planRecast, type RecastPlan } from './recast/plan-recast'
import type { RecastRequest } from './recast/request'
import type { StylePlan } from './styles/plan'
import type { LineEnds } from './rules/plan-rules'
import { planStyles } from './styles/plan-styles'
import type { StyleRequest } from './styles/wishes'
import { applyPlan, planSwap } from './swap/plan-swap'

const takesLine = (rule: LeadInRule): boolean => rule.what.kind === 'first-line'

/**
 * A document at work: read, set in pages and counted, each when first asked for. The same in browser, server and
 * command line.
 */
export class DocumentSession {
  private read: Reading | null = null
  private composer: Composer | null = null
  private composed: Composition | null = null
  private counted: CensusDetail | null = null
  private absentList: AbsentList | null = null

  /** @param earlier the session before a change: what the change does not reach is taken over */
  constructor(
    readonly document: OdfDocument,
    readonly typesetter: Typesetter,
    private earlier?: DocumentSession,
  ) {}

  /** @throws PackageError */
  static open(bytes: Uint8Array, typesetter: Typesetter, ids?: Parameters<typeof openDocument>[1]): DocumentSession {
    return new DocumentSession(openDocument(bytes, ids), typesetter)
  }

  /**
   * Opens a document and fetches what its languages need to divide words: the way to open what is to be composed.
   * @throws PackageError
   */
  static async start(
    bytes: Uint8Array,
    typesetter: Typesetter,
    options?: Parameters<typeof openDocument>[1],
  ): Promise<DocumentSession> {
    const session = DocumentSession.open(bytes, typesetter, options)
    await prepareHyphenation(dividedLanguages(session.document))
    return session
  }

  get reading(): Reading {
    return (this.read ??= readDocument(this.document, this.earlier?.read ?? undefined))
  }
  private get composing(): Composer {
    return (this.composer ??= new Composer(
      this.reading,
      this.typesetter,
      undefined,
      this.earlier?.composer ?? undefined,
    ))
  }
  get composition(): Composition {
    if (!this.composed) {
      this.composed = this.composing.finish()
      // What could be taken over is: the session before is let go.
      this.earlier = undefined
    }
    return this.composed
  }

  /** One page, without waiting for all of them; null where there is none. */
  page(index: number, view: PageView = 'pages'): Page | null {
    return this.composed ? (this.composed[view][index] ?? null) : this.composing.page(index, view)
  }

  /** What styles the text of a part: the document's own cascade or an object's. */
  cascadeOf(part: string): Cascade {
    return this.composing.cascadeOf(part)
  }

  get detail(): CensusDetail {
    return (this.counted ??= takeCensus(this.reading, this.typesetter.library, this.composition))
  }

  /** Composes anew, after faces that were missing have come. */
  recompose(): void {
    forgetLayouts(this.typesetter)
    this.composer = null
    this.composed = null
    this.counted = null
    this.absentList = null
    this.read = null
  }

  /**
   * The document as a swap would make it, to be looked at page by page: nothing about its effects is worked out.
   * @throws PlanError
   */
  preview(request: SwapRequest): DocumentSession {
    const plan = planSwap(this.document, this.detail.census, request, this.typesetter.library, this.knowledge)
    return new DocumentSession(applyPlan(this.document, plan).document, this.typesetter, this)
  }

  /** Where the first line of each paragraph of the body ends, as it is composed. */
  private firstLines(): LineEnds {
    const extents = paragraphExtents(this.composition)
    return (part, node) => {
      const extent = extents.get(node)
      return extent?.paragraph.part === part ? (extent.layout.lines[0]?.end ?? null) : null
    }
  }

  /**
   * The document as wishes about styles would make it; with `effects` the plan says what they do to the pages.
   * @throws PlanError
   */
  planStyles(request: StyleRequest, effects = true): { readonly plan: StylePlan; readonly after: DocumentSession } {
    const planned = (of: DocumentSession | null) =>
      planStyles(
        this.document,
        this.reading,
        request,
        this.typesetter.library,
        of ? of.firstLines() : undefined,
        effects,
      )
    let { plan, document } = planned(
      readRules(this.document).leadIns.some(takesLine) ||
        request.wishes.some(wish => wish.type === 'rules' && wish.leadIns.some(takesLine))
        ? this
        : null,
    )
    let after = new DocumentSession(document, this.typesetter, this)
    // What a rule does to a first line may move where it ends: looked at until it stands, three times at most.
    for (let round = 0; round < 3 && readRules(document).leadIns.some(takesLine); round++) {
      const next = planned(after)
      if (JSON.stringify(next.plan.operations) === JSON.stringify(plan.operations)) break
      plan = next.plan
      document = next.document
      after = new DocumentSession(document, this.typesetter, this)
    }
    return {
      plan: effects ? { ...plan, effects: compareCompositions(this.composition, after.composition) } : plan,
      after,
    }
  }

  /** A plan with what it does to the pages, and the document as it would be. @throws PlanError */
  plan(request: SwapRequest): { readonly plan: SwapPlan; readonly after: DocumentSession } {
    const factors = this.lineFactors(request)
    const plan = planSwap(this.document, this.detail.census, request, this.typesetter.library, {
      ...this.knowledge,
      factors,
    })
    const after = new DocumentSession(applyPlan(this.document, plan).document, this.typesetter, this)
    return { plan: { ...plan, effects: compareCompositions(this.composition, after.composition) }, after }
  }

  /**
   * Sizes that keep the lines of a wish: found by halving between the wish's limits, on the paragraphs that the wish
   * sets. The largest size that was tried and needs no more lines than before is taken.
   */
  private lineFactors(request: SwapRequest): Map<number, number> {
    const factors = new Map<number, number>()
    for (const [index, wish] of request.wishes.entries()) {
      if (wish.size?.mode !== 'lines') continue
      const trial = (factor: number) =>
        planSwap(this.document, this.detail.census, { ...request, repairs: [], spared: [] }, this.typesetter.library, {
          ...this.knowledge,
          factors: new Map([...factors, [index, factor]]),
        })
      const excess = (factor: number) => {
        const { linesBefore, linesAfter } = compareCompositions(
          this.composition,
          new DocumentSession(applyPlan(this.document, trial(factor)).document, this.typesetter, this).composition,
        )
        return linesAfter - linesBefore
      }
      let [low, high] = [wish.size.least / 100, wish.size.most / 100]
      let best = low
      for (let round = 0; round < lineRounds; round++) {
        const middle = Math.round((low + high) * 500) / 1000
        if (excess(middle) <= 0) {
          best = middle
          low = middle
        } else high = middle
      }
      factors.set(index, best)
    }
    return factors
  }

  /**
   * What a recast would do, with the document as it would be. Without `effects` nothing about the pages is worked
   * out.
   * @throws PlanError
   */
  recast(request: RecastRequest, effects = true): { readonly plan: RecastPlan; readonly after: DocumentSession } {
    const { plan, document } = planRecast(this.document, request, this.typesetter.library, this.knowledge)
    const after = plan.operations.length === 0 ? this : new DocumentSession(document, this.typesetter, this)
    return {
      plan: effects ? { ...plan, effects: compareCompositions(this.composition, after.composition) } : plan,
      after,
    }
  }

  /** Families that are absent, with all their places. */
  get absent(): AbsentList {
    return (this.absentList ??= listAbsent(this.reading, this.typesetter.library, this.composition))
  }

  /** Ways to mend what does not fit after a plan. `after` is the document as the plan would make it. */
  repairsFor(after: DocumentSession, target: RepairTarget): RepairOption[] {
    return findRepairs(this, after, target)
  }

  private get knowledge(): { readonly reading: Reading; readonly composition: Composition } {
    return { reading: this.reading, composition: this.composition }
  }
}

/** Halvings until a size is found: a fraction of a percent of what the limits leave. */
const lineRounds = 6

/** Languages of the styles of a document, where any of them asks for words to be divided. */
function dividedLanguages(document: OdfDocument): Set<string> {
  const languages = new Set<string>()
  let divides = false
  for (const part of document.parts.values()) {
    if (!/(^|\/)(content|styles)\.xml$/.test(part.path)) continue
    for (const element of part.descendants()) {
      if (element.name === 'office:body') break
      if (element.name !== 'style:text-properties') continue
      const { attributes } = element
      if (attributes['fo:hyphenate'] === 'true') divides = true
      for (const [language, country] of [
        ['fo:language', 'fo:country'],
        ['style:language-asian', 'style:country-asian'],
        ['style:language-complex', 'style:country-complex'],
      ] as const) {
        const own = attributes[language]
        if (own && own !== 'none')
          languages.add(attributes[country] && attributes[country] !== 'none' ? `${own}-${attributes[country]}` : own)
      }
    }
  }
  return divides ? languages : new Set()
}
