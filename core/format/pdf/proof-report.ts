import { severities, type Severity } from '../../house/checks'
import type { Finding, Proof } from '../../proof/finding'
import { countWords } from '../../proof/report'
import type { ReadBlock } from '../blocks'
import { displayPage } from '../../typeset/display'
import { mapped } from '../../typeset/matrix'
import {
  momentWords,
  Numberer,
  ReportFile,
  reportHeading,
  reportTable,
  reportText,
  type PlacedPage,
  type ReportedPages,
  type ReportWorks,
} from './report-file'

/** What was proofed, and by what. */
export interface ProofOf {
  readonly fileName: string
  readonly version: number | null
  /** By what it was looked over, in words: “the checklist of the desk”. */
  readonly by: string
}

/** As many pages with findings are shown, the first ones. */
export const shownPages = 40
/** As many of the words that a finding is about are told. */
const mostWords = 120

const short = (text: string) => (text.length > mostWords ? `${text.slice(0, mostWords - 1)}…` : text)
const severityTitles = { error: 'Errors', warning: 'Warnings', note: 'Notes' } as const

/** A finding as a report lists it. */
export interface ReportedFinding {
  readonly severity: Severity
  readonly number: number
  readonly pageWords: string
  readonly title: string
  readonly says: string
  /** What it is about; '' for nothing that could be told. */
  readonly words: string
}

/** All findings, severity by severity, each with its number. */
export const findingTables = (findings: readonly ReportedFinding[]): ReadBlock[] =>
  severities.flatMap(severity => {
    const own = findings.filter(each => each.severity === severity)
    if (own.length === 0) return []
    return [
      reportHeading(2, severityTitles[severity]),
      ...reportTable(
        [
          ['No.', 3],
          ['Page', 3],
          ['What', 8],
          ['Says', 12],
          ['Words', 14],
        ],
        own.map(each => [
          String(each.number),
          each.pageWords,
          each.title,
          each.says,
          each.words === '' ? '' : `“${short(each.words)}”`,
        ]),
      ),
    ]
  })

/** What is said before pages with findings are shown. */
export const pagesFollow = (shown: number, marked: number): string =>
  `${shown < marked ? `The first ${shown} of ${marked} pages` : 'The pages'} with findings follow, each with its number.`

/**
 * A proof as a PDF for those who were not at the desk: how much was found, every finding with its number, its page and its
 * words, what was accepted and why, and the pages with the numbers where the findings are.
 */
export async function proofPdf(
  { findings, more }: Proof,
  of: ProofOf,
  pages: ReportedPages,
  works: ReportWorks,
): Promise<Uint8Array> {
  const open = findings.filter(each => each.accepted === null)
  const accepted = findings.filter(each => each.accepted !== null)
  const numbers = new Map(
    severities.flatMap(severity => open.filter(each => each.severity === severity)).map((each, at) => [each, at + 1]),
  )
  const pageWords = ({ page }: Finding) => (page < 0 ? '' : (pages.composition.pages[page]?.number ?? String(page + 1)))
  const marked = [...new Set(open.filter(each => each.page >= 0 && each.place).map(each => each.page))].sort(
    (a, b) => a - b,
  )
  const shown = marked.slice(0, shownPages)
  const title = `Proof of ${of.fileName}`
  const report = await ReportFile.begin(
    title,
    [
      reportHeading(1, title),
      reportText(
        `${of.version === null ? '' : `Version ${of.version}, `}${momentWords(works.made)}, by ${of.by}: ${countWords(findings)}` +
          `${accepted.length > 0 ? `; ${accepted.length} accepted` : ''}.`,
      ),
      ...findingTables(
        open.map(each => ({ ...each, number: numbers.get(each)!, pageWords: pageWords(each), words: each.text })),
      ),
      ...more.map(({ check, count }) => {
        const known = findings.find(each => each.check === check)
        return reportText(`${known?.title ?? check}: ${count} more.`)
      }),
      ...(accepted.length > 0
        ? [
            reportHeading(2, 'Accepted'),
            ...reportTable(
              [
                ['Page', 3],
                ['What', 8],
                ['Words', 14],
                ['Why', 12],
              ],
              accepted.map(each => [pageWords(each), each.title, short(each.text), each.accepted!]),
            ),
          ]
        : []),
      ...(shown.length > 0 ? [reportText(pagesFollow(shown.length, marked.length))] : []),
    ],
    works,
  )
  if (shown.length > 0) await showPages(report, await Numberer.begin(works), pages, shown, numbers)
  return report.save()
}

/** Lays pages on sheets, two on each, with the numbers of their findings. */
async function showPages(
  report: ReportFile,
  numberer: Numberer,
  pages: ReportedPages,
  shown: readonly number[],
  numbers: ReadonlyMap<Finding, number>,
): Promise<void> {
  const pictures = await report.pagesOf(pages, shown)
  for (let at = 0; at < shown.length; at += 2) {
    const two = shown.slice(at, at + 2)
    const placed = report.sheetOf(two.map(index => pictures.get(index)))
    two.forEach((index, side) => {
      const page = placed[side]
      if (page) mark(numberer, page, pages, index, numbers)
    })
  }
}

function mark(
  numberer: Numberer,
  placed: PlacedPage,
  { composition }: ReportedPages,
  index: number,
  numbers: ReadonlyMap<Finding, number>,
): void {
  const { runs } = displayPage(composition.pages[index]!)
  const taken: { x: number; y: number }[] = []
  for (const [finding, number] of numbers) {
    const { place } = finding
    if (finding.page !== index || !place) continue
    const run = runs.find(
      each =>
        each.own &&
        each.part === place.part &&
        each.node === place.node &&
        each.end >= place.start &&
        each.start <= Math.max(place.end, place.start + 1),
    )
    if (!run) continue
    const middle = { x: run.x, y: run.y - (run.ascent - run.descent) / 2 }
    const { x, y } = run.matrix ? mapped(run.matrix, middle.x, middle.y) : middle
    markAt(numberer, placed, number, { x, y }, taken)
  }
}

/**
 * A number before a place of a page, at the middle of its line: what is read stays free.
 * @param taken where numbers are already: those of one place stand beside each other
 */
export function markAt(
  numberer: Numberer,
  placed: PlacedPage,
  number: number,
  { x, y }: { readonly x: number; readonly y: number },
  taken: { x: number; y: number }[],
): void {
  let at = { x: placed.x + x * placed.scale - 7, y: placed.y + (placed.height - y) * placed.scale }
  while (taken.some(each => Math.hypot(each.x - at.x, each.y - at.y) < 10)) at = { ...at, x: at.x - 11 }
  taken.push(at)
  numberer.draw(placed.on, number, at.x, at.y)
}
