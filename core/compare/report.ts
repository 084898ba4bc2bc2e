import { csvLines } from '../census/csv'
import type { Comparison, Difference } from './compare'

/** What each kind of difference is called. */
export const differenceTitles: Readonly<Record<Difference['kind'], string>> = {
  words: 'Words',
  came: 'Text that came',
  went: 'Text that went',
  look: 'Look',
  style: 'Style',
  setting: 'Setting',
  page: 'Page',
}

/** A comparison as CSV (RFC 4180, UTF-8): styles, voices, then places in reading order. */
export function comparisonCsv(comparison: Comparison, before: string, after: string): string {
  const pageOf = (of: Difference['before']) => (of === null || of.page < 0 ? '' : of.page + 1)
  return csvLines([
    ['what', `page in ${before}`, `page in ${after}`, before, after, 'around'],
    ['pages', '', '', comparison.pagesBefore, comparison.pagesAfter, ''],
    ...comparison.styles.map(each => ['style', '', '', each.one ?? '', each.other ?? '', each.what]),
    ...comparison.voices.map(each => ['voice', '', '', each.one ?? '', each.other ?? '', each.what]),
    ...comparison.differences.map(each => [
      each.kind,
      pageOf(each.before),
      pageOf(each.after),
      each.one,
      each.other,
      each.near,
    ]),
    ...(comparison.more > 0 ? [['more', '', '', '', comparison.more, '']] : []),
  ])
}
