/** A number with thousands set apart: 41,208. */
export function grouped(value: number): string {
  return value.toLocaleString('en-GB')
}

/** “1 place”, “41 places”. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`
}
