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

/** What a record tells: of any plan, be it a swap or a change of styles. */
export interface Recorded {
  readonly title: string
  readonly rows: readonly {
    readonly title: string
    readonly count: number
    readonly before: string
    readonly after: string
    readonly included: boolean
  }[]
  readonly left: readonly { readonly what: string; readonly reason: string; readonly count: number }[]
}

/** Where the change was made: the document's name, and the version it gave. */
export interface RecordOf {
  readonly fileName: string
  readonly version: number
}

/**
 * The record of a change as a PDF: what was asked, every row with its values before and after, and the pages as
 * they were and are.
 */
export async function recordPdf(
  recorded: Recorded,
  of: RecordOf,
  before: ReportedPages,
  after: ReportedPages,
  works: ReportWorks,
): Promise<Uint8Array> {
  const changed = changedPages(before.composition, after.composition)
  const included = recorded.rows.filter(row => row.included)
  const report = await ReportFile.begin(
    recorded.title,
    [
      reportHeading(1, recorded.title),
      reportText(
        `${of.fileName}, version ${of.version}, ${momentWords(works.made)}. ` +
          `${before.composition.pages.length} pages before, ${after.composition.pages.length} after.`,
      ),
      ...reportTable(
        [
          ['What', 10],
          ['Count', 3],
          ['Before', 8],
          ['After', 8],
        ],
        included.map(row => [row.title, String(row.count), row.before, row.after]),
      ),
      ...(recorded.left.length > 0
        ? [
            reportHeading(2, 'What stays'),
            ...recorded.left.slice(0, 100).map(each => reportText(`${each.what}: ${each.reason}.`)),
          ]
        : []),
      reportText(changedWords(changed)),
    ],
    works,
  )
  await report.sideBySide(before, after, changed.shown)
  return report.save()
}
