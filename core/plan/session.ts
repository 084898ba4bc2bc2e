import { takeCensus, type CensusDetail } from '../census/census'
import { openDocument, type OdfDocument } from '../document/open'
import { compose, readDocument, type Composition, type Reading } from '../typeset/compose'
import type { Typesetter } from '../typeset/look'
import { compareCompositions } from './effects'
import type { SwapPlan, SwapRequest } from './plan'
import { applyPlan, planSwap } from './swap'

/** A document at work: read, set in pages and counted, each when first asked for. The same in browser, server and command line. */
export class DocumentSession {
  private read: Reading | null = null
  private composed: Composition | null = null
  private counted: CensusDetail | null = null

  constructor(readonly document: OdfDocument, readonly typesetter: Typesetter) {}

  /** @throws PackageError */
  static open(bytes: Uint8Array, typesetter: Typesetter, ids?: Parameters<typeof openDocument>[1]): DocumentSession {
    return new DocumentSession(openDocument(bytes, ids), typesetter)
  }

  get reading(): Reading { return this.read ??= readDocument(this.document) }
  get composition(): Composition { return this.composed ??= compose(this.reading, this.typesetter) }
  get detail(): CensusDetail { return this.counted ??= takeCensus(this.reading, this.typesetter.library, this.composition) }

  /** Composes anew, after faces that were missing have come. */
  recompose(): void { this.composed = null; this.counted = null; this.read = null }

  /** A plan with what it does to the pages, and the document as it would be. @throws PlanError */
  plan(request: SwapRequest): { readonly plan: SwapPlan, readonly after: DocumentSession } {
    const plan = planSwap(this.document, this.detail.census, request, this.typesetter.library)
    const after = new DocumentSession(applyPlan(this.document, plan).document, this.typesetter)
    return { plan: { ...plan, effects: compareCompositions(this.composition, after.composition) }, after }
  }
}
