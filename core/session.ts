import { listAbsent } from './census/absent'
import type { AbsentList } from './census/absent-model'
import { countInSlices, takeCensus, type CensusDetail } from './census/census'
import { openDocument, type OdfDocument } from './document/open'
import { prepareHyphenation } from './typeset/hyphenate'
import { Composer, type Composition } from './typeset/compose'
import { readDocument, type Reading } from './style/reading'
import type { PageView } from './typeset/drawing-pages'
import type { Cascade } from './style/cascade'
import type { Page } from './typeset/page'
import type { Typesetter } from './typeset/look'
import { forgetLayouts } from './typeset/paragraph'

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

  /** The session that what a change does not reach is taken from. */
  private earlier: DocumentSession | undefined

  /** @param earlier the session before a change: what the change does not reach is taken over */
  constructor(
    readonly document: OdfDocument,
    readonly typesetter: Typesetter,
    earlier?: DocumentSession,
  ) {
    // Pages that were not all set give little: then those that they were made from serve. So keys that come quickly stand
    // beside one another, each on the last whole state, and none holds all before it.
    this.earlier = earlier?.composed === null ? (earlier.earlier ?? earlier) : earlier
  }

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

  /**
   * All pages set and everything counted, a slice at a time: between two whoever waits may go first. What is asked for
   * meanwhile is there at once, and does not wait for the end.
   */
  *counting(): Generator<void> {
    if (!this.composed) yield* this.composing.slices()
    const { composition } = this
    yield
    this.counted ??= yield* countInSlices(this.reading, this.typesetter.library, composition)
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

  /** Families that are absent, with all their places. */
  get absent(): AbsentList {
    return (this.absentList ??= listAbsent(this.reading, this.typesetter.library, this.composition))
  }
}

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
