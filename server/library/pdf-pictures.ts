import { createRequire } from 'node:module'
import { dirname } from 'node:path'

/** What a page of a finished PDF looks like, as a picture of so many pixels across. */
export interface PdfPicture {
  /** An SVG that shows it, as pictures of pages are kept everywhere. */
  readonly svg: string
  readonly pages: number
}

const folder = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'))
/** No picture is larger than that, whatever a page says of its size. Pixels. */
const largest = 2_000

/**
 * Draws a page of a finished PDF (from 0). Fonts that are not in the file are drawn in those that the drawing library
 * brings; nothing of the machine's own is looked for, and nothing in the file is run.
 * @throws Error where the file or the page cannot be drawn
 */
export async function pdfPicture(bytes: Uint8Array, page: number, width: number): Promise<PdfPicture> {
  // Both are large, and most threads draw none: they are read when the first page is.
  const [{ getDocument }, { createCanvas }] = await Promise.all([
    import('pdfjs-dist/legacy/build/pdf.mjs'),
    import('@napi-rs/canvas'),
  ])
  const loading = getDocument({
    data: bytes.slice(),
    standardFontDataUrl: `${folder}/standard_fonts/`,
    cMapUrl: `${folder}/cmaps/`,
    cMapPacked: true,
    wasmUrl: `${folder}/wasm/`,
    iccUrl: `${folder}/iccs/`,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: 0,
  })
  try {
    const document = await loading.promise
    if (page >= document.numPages) return { svg: '', pages: document.numPages }
    const own = await document.getPage(page + 1)
    const natural = own.getViewport({ scale: 1 })
    const scale = Math.min(width / natural.width, largest / natural.height)
    const viewport = own.getViewport({ scale })
    const canvas = createCanvas(Math.max(1, Math.round(viewport.width)), Math.max(1, Math.round(viewport.height)))
    await own.render({
      canvas: null,
      canvasContext: canvas.getContext('2d') as unknown as CanvasRenderingContext2D,
      viewport,
    }).promise
    const picture = canvas.toBuffer('image/png').toString('base64')
    return {
      svg:
        `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${natural.width} ${natural.height}">` +
        `<image width="${natural.width}" height="${natural.height}" href="data:image/png;base64,${picture}"/></svg>`,
      pages: document.numPages,
    }
  } finally {
    await loading.destroy()
  }
}
