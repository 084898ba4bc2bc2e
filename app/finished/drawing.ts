import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy, type PDFPageProxy } from 'pdfjs-dist'
import workerAddress from 'pdfjs-dist/build/pdf.worker.min.mjs?url'

/*
 * Pages of finished PDFs are drawn by a library, in a worker of its own: fonts that are not in the file in those that it
 * brings, so that every desk shows the same. Nothing in a file is run.
 */

/** The pages of a file, to be drawn. */
export interface PdfPages {
  /** Draws a page (from 0) so many pixels wide; what was asked for before on that canvas is given up. */
  draw(page: number, canvas: HTMLCanvasElement, width: number): Promise<void>
  close(): void
}

/** No canvas has more pixels. */
const largest = 16_000_000
let worker: Worker | null = null

export async function openPages(bytes: Uint8Array): Promise<PdfPages> {
  GlobalWorkerOptions.workerPort ??= worker ??= new Worker(workerAddress, { type: 'module' })
  const loading = getDocument({
    // The library takes what it is given away.
    data: bytes.slice(),
    standardFontDataUrl: '/pdf/standard_fonts/',
    cMapUrl: '/pdf/cmaps/',
    cMapPacked: true,
    wasmUrl: '/pdf/wasm/',
    iccUrl: '/pdf/iccs/',
    isEvalSupported: false,
    useSystemFonts: false,
    verbosity: 0,
  })
  const document: PDFDocumentProxy = await loading.promise
  const tasks = new Map<HTMLCanvasElement, ReturnType<PDFPageProxy['render']>>()
  let closed = false
  return {
    async draw(page, canvas, width) {
      const own = await document.getPage(page + 1)
      const natural = own.getViewport({ scale: 1 })
      const scale = Math.min(width / natural.width, Math.sqrt(largest / (natural.width * natural.height)))
      const viewport = own.getViewport({ scale })
      tasks.get(canvas)?.cancel()
      if (closed) return
      // Drawn aside and then shown at once, so that a page never blinks.
      const aside = globalThis.document.createElement('canvas')
      aside.width = Math.max(1, Math.round(viewport.width))
      aside.height = Math.max(1, Math.round(viewport.height))
      const task = own.render({ canvas: aside, viewport })
      tasks.set(canvas, task)
      try {
        await task.promise
      } catch (error) {
        if ((error as Error).name === 'RenderingCancelledException') return
        throw error
      }
      if (tasks.get(canvas) !== task) return
      canvas.width = aside.width
      canvas.height = aside.height
      canvas.getContext('2d')!.drawImage(aside, 0, 0)
    },
    close() {
      closed = true
      for (const task of tasks.values()) task.cancel()
      void loading.destroy()
    },
  }
}

/** A file with what stands behind its bytes, in base64. */
export function bytesBehind(bytes: Uint8Array, behind: string): Uint8Array {
  const more = Uint8Array.from(atob(behind), character => character.charCodeAt(0))
  const whole = new Uint8Array(bytes.length + more.length)
  whole.set(bytes)
  whole.set(more, bytes.length)
  return whole
}
