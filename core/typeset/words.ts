/**
 * Every distinct word once, under a number. Numbers outlive documents and faces: what a paragraph keeps of its text are
 * numbers, and what a face keeps of a word stands under the same one.
 */
export class Words {
  private readonly numbers = new Map<string, number>()
  private readonly texts: string[] = []

  number(text: string): number {
    let number = this.numbers.get(text)
    if (number === undefined) {
      number = this.texts.length
      this.texts.push(text)
      this.numbers.set(text, number)
    }
    return number
  }

  text(number: number): string {
    return this.texts[number]!
  }
  get count(): number {
    return this.texts.length
  }
}
