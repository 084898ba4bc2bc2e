import { zipSync } from 'fflate'

/** The first day that a zip knows of for sure, whatever the time zone (APPNOTE, 4.4.6). */
const firstDay = Date.UTC(1980, 0, 2)

/**
 * Files in a zip, in their order.
 * @param made when they are said to be made: milliseconds since 1970
 * @param stored which of them is kept as it is, not packed
 */
export function zipFiles(files: Iterable<readonly [string, Uint8Array]>, made: number, stored?: string): Uint8Array {
  return zipSync(
    Object.fromEntries([...files].map(([path, bytes]) => [path, [bytes, { level: path === stored ? 0 : 6 }] as const])),
    { mtime: Math.max(made, firstDay) },
  )
}
