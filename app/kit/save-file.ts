/** Saves something as a file of a person's own: the browser asks where, or puts it with their downloads. */
export function saveFile(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  // The browser reads it after the click: it is let go of when that must be over.
  setTimeout(() => {
    URL.revokeObjectURL(link.href)
  }, 60_000)
}

/** The name that an answer gives its file (RFC 8187). */
const nameIn = (response: Response): string =>
  decodeURIComponent(/filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file')

/** Saves the file that the server answers with, under the name that it gives it. */
export const saveAnswer = async (response: Response): Promise<void> => saveFile(await response.blob(), nameIn(response))
