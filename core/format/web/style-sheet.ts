import type { Declarations } from './declarations'

/** Rules by class: what looks alike has one class, called after the style that it comes from. */
export class StyleSheet {
  private readonly known = new Map<string, string>()
  private readonly taken = new Set<string>()
  private readonly rules: string[] = []

  /**
   * The class for some declarations; '' for none.
   * @param element that it is for; '' for any
   * @param name what it is called where that is free
   */
  classOf(element: string, name: string, said: Declarations): string {
    if (said.size === 0) return ''
    const body = [...said].map(([property, value]) => `  ${property}: ${value};`).join('\n')
    const key = `${element}|${body}`
    let found = this.known.get(key)
    if (found === undefined) {
      const base = className(name)
      found = base
      for (let count = 2; this.taken.has(`${element}.${found}`); count++) found = `${base}-${count}`
      this.taken.add(`${element}.${found}`)
      this.known.set(key, found)
      this.rules.push(`${element}.${found} {\n${body}\n}`)
    }
    return found
  }

  get css(): string {
    return this.rules.join('\n')
  }
}

/** A name that a class may have: letters, digits and hyphens, a letter first. */
export function className(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
  return /^\p{L}/u.test(plain) ? plain : plain === '' ? 'text' : `s-${plain}`
}
