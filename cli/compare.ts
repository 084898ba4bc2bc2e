import { basename } from 'node:path'
import { compareDocuments, type Difference } from '../core/compare/compare'
import { comparisonPdf } from '../core/format/pdf/comparison-report'
import { CommandError, type Call, type Outcome } from './call'
import type { Open } from './plans'
import { padded } from './report'
import { writeReport } from './report-file'

/** Differences are listed up to this many. */
const listed = 200
const short = (text: string) => (text.length > 60 ? `${text.slice(0, 57)}…` : text).replace(/\s+/g, ' ')
const pageOf = ({ before, after }: Difference) => {
  const page = (after ?? before)?.page ?? -1
  return page < 0 ? '' : `page ${page + 1}`
}

/** Tells in what two documents differ. It ends with 2 where they do not. @throws CommandError, PackageError */
export async function compare(call: Call, open: Open): Promise<Outcome> {
  const [one, other, ...more] = call.files
  if (one === undefined || other === undefined || more.length > 0)
    throw new CommandError('compare needs two files: compare FILE FILE')
  const [before, after] = [await open(one), await open(other)]
  const comparison = compareDocuments(before, after)
  const report = await writeReport(call, after, works =>
    comparisonPdf(comparison, [basename(one), basename(other)], before, after, works),
  )
  const { differences, voices, styles } = comparison
  const same = differences.length + voices.length + styles.length === 0
  if (call.switches.has('--json')) return { text: JSON.stringify(comparison, null, 2), code: same ? 2 : 0 }
  if (same) return { text: 'they differ in nothing', code: 2 }
  const changed = (title: string, list: typeof voices) =>
    list.length === 0
      ? []
      : ['', title, ...padded(list.map(each => [each.what, each.one ?? '–', '→', each.other ?? '–'].map(short)))]
  return {
    code: 0,
    text: [
      `${differences.length + comparison.more} places differ; ${comparison.pagesBefore} pages before, ${comparison.pagesAfter} after`,
      ...changed('Styles', styles),
      ...changed('Voices', voices),
      '',
      'Places',
      ...padded(
        differences
          .slice(0, listed)
          .map(each => [pageOf(each), each.kind, short(each.one), '→', short(each.other), `“${short(each.near)}”`]),
      ),
      ...(differences.length > listed ? [`  and ${differences.length - listed} more`] : []),
      ...(report === '' ? [] : [report]),
    ].join('\n'),
  }
}
