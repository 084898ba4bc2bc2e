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
