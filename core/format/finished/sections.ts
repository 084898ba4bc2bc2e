/** Whether bytes begin as those of a PDF (ISO 32000-2, 7.5.2): its header is within the first 1024. */
export const isPdf = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 1024)).includes('%PDF-')

/** More sections are not told apart: what comes behind is one piece. */
const sectionLimit = 2_000

/**
 * Where the sections of a PDF end: each update stands behind the one before and ends with its own mark (ISO 32000-2,
 * 7.5.6), so that versions of a file share all sections but their last. Offsets into the bytes, the last one its length.
 */
export function sectionEnds(bytes: Uint8Array): number[] {
  const ends: number[] = []
  const text = new TextDecoder('latin1').decode(bytes)
  // A line end behind the mark may be the file's own or what an update begins with: it goes with what comes behind.
  for (const match of text.matchAll(/(?:^|[\r\n])%%EOF(?=[\r\n]|$)/g)) {
    const end = match.index + match[0].length
    if (ends.length < sectionLimit && end < bytes.length) ends.push(end)
  }
  return [...ends, bytes.length]
}
