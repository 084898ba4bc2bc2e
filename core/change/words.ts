/** A number with thousands set apart: 41,208. */
export function grouped(value: number): string {
  return value.toLocaleString('en-GB')
}

/** “1 place”, “41 places”. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`
}

/** White space is shown by signs, so that it can be seen: no-break spaces of both widths among it. */
export const seenSpaces = (text: string): string =>
  text
    .replace(/ /g, '␣')
    .replace(/\t/g, '⇥')
    .replace(/[\u00A0\u202F]/g, '⍽')
