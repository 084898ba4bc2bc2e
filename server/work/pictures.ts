import { getRequestHeader, setHeader, setHeaders, setResponseStatus, type H3Event } from 'h3'
import { LRUCache } from 'lru-cache'
import { pictureName } from '../store/document-count'

/**
 * Sends a picture of a page. It goes by what it shows (RFC 9110, 8.8.3), so that a browser that has it is not sent it again;
 * one whose address says what it shows never changes.
 */
export function sendPicture(event: H3Event, svg: string, immutable: boolean): string | null {
  const tag = `"${pictureName(svg)}"`
  setHeaders(event, {
    'Content-Type': 'image/svg+xml',
    'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    'Cache-Control': immutable ? 'private, max-age=31536000, immutable' : 'private, no-cache',
    ETag: tag,
  })
  const known = getRequestHeader(event, 'if-none-match')
  if (known?.split(',').some(each => each.trim().replace(/^W\//, '') === tag)) {
    setResponseStatus(event, 304)
    return null
  }
  setHeader(event, 'Content-Length', Buffer.byteLength(svg))
  return svg
}

/** What a page's picture is made of: the same makes the same. */
export interface PagePicture {
  readonly document: string
  readonly version: number
  readonly page: number
  readonly setting: unknown
}

/** Letters of all pictures that are kept together. */
const mostLetters = 64_000_000

/** Pictures of pages that were drawn, as long as there is room for them; several who ask for one at once wait for one. */
export class PagePictures {
  private readonly kept = new LRUCache<string, { readonly svg: string }, () => Promise<string>>({
    maxSize: mostLetters,
    sizeCalculation: ({ svg }) => svg.length + 1,
    fetchMethod: async (_key, _stale, { context: draw }) => ({ svg: await draw() }),
  })

  /** A page's picture, drawn by `draw` where it is not there. A failure is not kept. */
  async get({ document, version, page, setting }: PagePicture, draw: () => Promise<string>): Promise<string> {
    return (await this.kept.forceFetch(JSON.stringify([document, version, page, setting ?? null]), { context: draw }))
      .svg
  }
}
