import { PDFDocument } from '@cantoo/pdf-lib'
import { severities } from '../../house/checks'
import { countWords } from '../../proof/report'
import { findingTables, markAt, pagesFollow, shownPages, type ProofOf } from '../pdf/proof-report'
import { momentWords, Numberer, ReportFile, reportHeading, reportText, type ReportWorks } from '../pdf/report-file'
import type { FinishedFinding } from './proof'
import type { FinishedReader } from './reader'

/**
 * A proof of a finished PDF as a PDF for those who were not at the desk: every finding with its number, its page and its
 * words, and the pages with the numbers where the findings are. Pages of locked files are not shown, and that is said.
 */
export async function finishedProofPdf(
  findings: readonly FinishedFinding[],
  of: ProofOf,
  { bytes, reader }: { readonly bytes: Uint8Array; readonly reader: FinishedReader },
  works: ReportWorks,
): Promise<Uint8Array> {
  const numbers = new Map(
    severities
      .flatMap(severity => findings.filter(each => each.severity === severity))
      .map((each, at) => [each, at + 1]),
  )
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false }).catch(() => null)
  const marked = [...new Set(findings.flatMap(({ place }) => (place ? [place.page - 1] : [])))].sort((a, b) => a - b)
  const shown = pdf ? marked.slice(0, shownPages) : []
  const title = `Proof of ${of.fileName}`
  const report = await ReportFile.begin(
    title,
    [
      reportHeading(1, title),
      reportText(
        `${of.version === null ? '' : `Version ${of.version}, `}${momentWords(works.made)}, by ${of.by}: ` +
          `${countWords(findings.map(each => ({ ...each, accepted: null })))}.`,
      ),
      ...findingTables(
        findings.map(each => ({
          ...each,
          number: numbers.get(each)!,
          pageWords: each.place ? String(each.place.page) : '',
          words: each.place?.text ?? '',
        })),
      ),
      ...(shown.length > 0 ? [reportText(pagesFollow(shown.length, marked.length))] : []),
      ...(pdf || marked.length === 0 ? [] : [reportText('The file is locked: its pages cannot be shown here.')]),
    ],
    works,
  )
  if (pdf && shown.length > 0) {
    const numberer = await Numberer.begin(works)
    const pictures = await report.pagesOfPdf(pdf, reader.looks, shown)
    for (let at = 0; at < shown.length; at += 2) {
      const two = shown.slice(at, at + 2)
      for (const [side, placed] of report.sheetOf(two.map(index => pictures.get(index))).entries()) {
        const taken: { x: number; y: number }[] = []
        for (const [{ place }, number] of placed ? numbers : []) {
          const box = place?.page === two[side]! + 1 ? place.boxes[0] : undefined
          if (box) markAt(numberer, placed!, number, { x: box.x, y: box.y + box.height / 2 }, taken)
        }
      }
    }
  }
  return report.save()
}
