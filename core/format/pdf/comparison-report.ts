import type { Changed, Comparison, Difference } from '../../compare/compare'
import { differenceTitles } from '../../compare/report'
import {
  changedPages,
  changedWords,
  momentWords,
  ReportFile,
  reportHeading,
  reportTable,
  reportText,
  type ReportedPages,
  type ReportWorks,
} from './report-file'

/** As many words of a place are told. */
const mostWords = 160
const short = (text: string) => (text.length > mostWords ? `${text.slice(0, mostWords - 1)}…` : text)
const pageWords = (of: Difference['before']) => (of === null || of.page < 0 ? '' : String(of.page + 1))

/**
 * A comparison as a PDF: what differs in styles, voices and places, then the pages that look different, side by side.
 * @param names what the two are called, the earlier first
 */
export async function comparisonPdf(
  comparison: Comparison,
  names: readonly [string, string],
  before: ReportedPages,
  after: ReportedPages,
  works: ReportWorks,
): Promise<Uint8Array> {
  const { differences, voices, styles, more, pagesBefore, pagesAfter } = comparison
  const [one, other] = names
  const changed = changedPages(before.composition, after.composition)
  const table = (title: string, list: readonly Changed[]) =>
    list.length === 0
      ? []
      : [
          reportHeading(2, title),
          ...reportTable(
            [
              ['What', 4],
              [one, 5],
              [other, 5],
            ],
            list.map(each => [each.what, each.one ?? 'not there', each.other ?? 'not there']),
          ),
        ]
  const places = differences.length + more
  const title = `${one} and ${other}`
  const report = await ReportFile.begin(
    title,
    [
      reportHeading(1, title),
      reportText(
        `Compared ${momentWords(works.made)}: ` +
          `${places === 0 ? 'no place differs' : places === 1 ? 'one place differs' : `${places} places differ`}; ` +
          `${pagesBefore} ${pagesBefore === 1 ? 'page' : 'pages'} before, ${pagesAfter} after.`,
      ),
      ...table('Styles', styles),
      ...table('Voices', voices),
      ...(differences.length > 0
        ? [
            reportHeading(2, 'Places'),
            ...reportTable(
              [
                ['Page', 3],
                ['What', 4],
                ['Before', 10],
                ['After', 10],
                ['Around', 10],
              ],
              differences.map(each => [
                pageWords(each.after ?? each.before),
                differenceTitles[each.kind],
                short(each.one),
                short(each.other),
                short(each.near),
              ]),
            ),
          ]
        : []),
      ...(more > 0 ? [reportText(`And ${more} places more.`)] : []),
      reportText(changedWords(changed)),
    ],
    works,
  )
  await report.sideBySide(before, after, changed.shown)
  return report.save()
}
