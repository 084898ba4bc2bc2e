import { partBytes, type Container } from '../../package/container'
import type { Composition } from '../../typeset/compose'
import { displayPage, type DisplayPage } from '../../typeset/display'
import type { Page } from '../../typeset/page'
import type { Shaper } from '../../typeset/shaper'
import { pageSvg } from '../../typeset/svg'
import type { FigureNode } from '../structure/read'

/** Kinds of pictures that every browser and reader of books shows, by how their files begin. */
const kinds: readonly {
  readonly ending: string
  readonly type: string
  readonly begins: (bytes: Uint8Array) => boolean
}[] = [
  { ending: 'png', type: 'image/png', begins: bytes => bytes[0] === 0x89 && bytes[1] === 0x50 },
  { ending: 'jpg', type: 'image/jpeg', begins: bytes => bytes[0] === 0xff && bytes[1] === 0xd8 },
  { ending: 'gif', type: 'image/gif', begins: bytes => bytes[0] === 0x47 && bytes[1] === 0x49 && bytes[2] === 0x46 },
]

/** A picture as it is put beside the text. */
export interface WebPicture {
  readonly path: string
  readonly type: string
  readonly bytes: Uint8Array
}

/** A picture in the text: its file, and how wide it stands there, in points. */
export interface PlacedPicture {
  readonly path: string
  readonly width: number
}

interface FoundFrame {
  readonly page: Page
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number }
}

/** The pictures of a document: files as they are, and charts, formulas and described drawings as they are drawn on the page. */
export class WebPictures {
  readonly files: WebPicture[] = []
  /** Pictures that are not written, by their names in the file. */
  readonly left = new Set<string>()
  private readonly known = new Map<string, string | null>()
  private frames: Map<string, FoundFrame> | null = null

  constructor(
    private readonly composition: Composition,
    private readonly shaper: Shaper,
    private readonly folder: string,
  ) {}

  /** The file of a figure; null where it cannot be shown. */
  of(node: FigureNode): PlacedPicture | null {
    const { frame } = node
    const found = this.found(`${frame.part}#${frame.node}`)
    const width = found?.box.width ?? 200
    if (node.stands === 'picture') {
      const path = this.copied((frame.href ?? '').replace(/^\.\//, ''))
      return path === null ? null : { path, width }
    }
    if (!found) return null
    return { path: this.drawn(node, found), width }
  }

  private copied(name: string): string | null {
    let path = this.known.get(name)
    if (path === undefined) this.known.set(name, (path = this.copy(name, this.composition.reading.document.container)))
    return path
  }

  private copy(name: string, container: Container): string | null {
    const bytes = container.byPath.has(name) ? partBytes(container, name) : null
    const kind = bytes && kinds.find(({ begins }) => begins(bytes))
    if (!kind) {
      this.left.add(name || 'a picture without a file')
      return null
    }
    return this.keep(kind.ending, kind.type, bytes.slice())
  }

  private keep(ending: string, type: string, bytes: Uint8Array): string {
    const path = `${this.folder}picture-${this.files.length + 1}.${ending}`
    this.files.push({ path, type, bytes })
    return path
  }

  /** What is drawn of a figure, cut out of its page. */
  private drawn({ frame }: FigureNode, { page, box }: FoundFrame): string {
    const key = `${frame.part}#${frame.node}`
    const known = this.known.get(key)
    if (known) return known
    const prefix = frame.content === 'object' ? `${(frame.href ?? '').replace(/^\.\//, '').replace(/\/$/, '')}/` : null
    const whole = displayPage(page)
    const ofFrame = (shape: DisplayPage['shapes'][number]) =>
      shape.kind !== 'overset' && shape.source?.part === frame.part && shape.source.node === frame.node
    const shapes = whole.shapes.filter(ofFrame)
    const runs = whole.runs.filter(run => prefix !== null && run.part.startsWith(prefix))
    const cut: DisplayPage = {
      ...whole,
      shapes,
      runs,
      layers: [
        { of: 'shapes', from: 0, to: shapes.length },
        { of: 'runs', from: 0, to: runs.length },
      ],
    }
    const path = this.keep('svg', 'image/svg+xml', new TextEncoder().encode(pageSvg(cut, this.shaper, box)))
    this.known.set(key, path)
    return path
  }

  /** Where a frame first stands. */
  private found(key: string): FoundFrame | undefined {
    if (!this.frames) {
      this.frames = new Map()
      for (const page of this.composition.pages)
        for (const fragment of page.fragments) {
          if (fragment.kind !== 'frame') continue
          const { x, y, width, height, matrix } = fragment
          const place = `${fragment.part}#${fragment.node}`
          if (!this.frames.has(place))
            this.frames.set(place, {
              page,
              box: { x: matrix ? matrix[4] : x, y: matrix ? matrix[5] : y, width, height },
            })
        }
    }
    return this.frames.get(key)
  }
}
