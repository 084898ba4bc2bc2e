import type { ShelfCard, ShelfPage } from '~~/shared/api'
import { batchLimit } from '~~/shared/shelf'

/** Cards of the shelf by name, page after page, up to as many as one plan takes; and how many there are in all. */
export async function wholeShelf(): Promise<{ readonly cards: readonly ShelfCard[]; readonly total: number }> {
  const cards: ShelfCard[] = []
  for (;;) {
    const count = Math.min(200, batchLimit - cards.length)
    const page = await $fetch<ShelfPage>('/api/shelf', { query: { sort: 'name', start: cards.length, count } })
    cards.push(...page.cards)
    if (page.cards.length === 0 || cards.length >= Math.min(page.total, batchLimit)) return { cards, total: page.total }
  }
}
