/** Things by the element that they are about. Asked for at every line of a document: no key is put together for it. */
export class ByPlace<T> {
  private readonly parts = new Map<string, Map<number, T>>()

  get(part: string, node: number): T | undefined {
    return this.parts.get(part)?.get(node)
  }

  set(part: string, node: number, value: T): void {
    const own = this.parts.get(part)
    if (own) own.set(node, value)
    else this.parts.set(part, new Map([[node, value]]))
  }
}
