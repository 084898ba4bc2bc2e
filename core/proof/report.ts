import { csvLines } from '../census/csv'
import { escapeXml } from '../package/new-package'
import { severities, type Severity } from '../house/checks'
import { countsOf, type Finding, type Proof } from './finding'

/** A finding as reports and scripts take it. Pages are the numbers that they bear; null where it is about the document. */
export interface ToldFinding {
  readonly check: string
  readonly title: string
  readonly severity: Severity
  readonly page: string | null
  readonly text: string
  readonly says: string
  readonly repairable: boolean
  readonly accepted: string | null
}

/** A document, of whatever sort, with what its proof found. */
export interface ProofedFile {
  readonly file: string
  readonly findings: readonly ToldFinding[]
  readonly more: Proof['more']
}

const toldFinding = (finding: Finding, pageNumbers: readonly string[]): ToldFinding => ({
  check: finding.check,
  title: finding.title,
  severity: finding.severity,
  page: finding.page < 0 ? null : (pageNumbers[finding.page] ?? String(finding.page + 1)),
  text: finding.text,
  says: finding.says,
  repairable: finding.repair !== null,
  accepted: finding.accepted,
})

/** What was found in a document as it is reported; `pageNumbers` are those that its pages bear. */
export const proofedFile = (file: string, { findings, more }: Proof, pageNumbers: readonly string[]): ProofedFile => ({
  file,
  findings: findings.map(finding => toldFinding(finding, pageNumbers)),
  more,
})

/** Whether a severity is at least another. */
export const isAtLeast = (severity: Severity, level: Severity): boolean =>
  severities.indexOf(severity) <= severities.indexOf(level)

/** “2 errors, 14 warnings, 3 notes”; “nothing found”. */
export function countWords(findings: readonly Pick<ToldFinding, 'severity' | 'accepted'>[]): string {
  const counts = countsOf(findings)
  const words = severities
    .filter(severity => counts[severity] > 0)
    .map(severity => `${counts[severity]} ${severity}${counts[severity] === 1 ? '' : 's'}`)
  return words.join(', ') || 'nothing found'
}

/** A proof as CSV (RFC 4180, UTF-8): a line a finding, those that were accepted with their reason. */
export function proofCsv(files: readonly ProofedFile[]): string {
  return csvLines([
    ['document', 'check', 'what', 'severity', 'page', 'says', 'text', 'can be put right', 'accepted'],
    ...files.flatMap(({ file, findings }) =>
      findings.map(({ check, title, severity, page, says, text, repairable, accepted }) => {
        return [file, check, title, severity, page ?? '', says, text, repairable ? 'yes' : 'no', accepted ?? '']
      }),
    ),
    ...files.flatMap(({ file, findings, more }) =>
      more.map(({ check, count }) => [
        file,
        check,
        findings.find(each => each.check === check)?.title ?? '',
        '',
        '',
        `${count} more`,
        '',
        '',
        '',
      ]),
    ),
  ])
}

/**
 * A proof as the XML that build servers read: a suite a document, a case a check with findings, a failure for all of at
 * least a severity. What XML cannot hold is left out (XML 1.0, 2.2).
 */
export function proofJunit(files: readonly ProofedFile[], level: Severity): string {
  const plain = (text: string) => escapeXml(text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, ''))
  const suites = files.map(({ file, findings: told }) => {
    const open = told.filter(each => each.accepted === null)
    const cases = [...groupedBy(open).values()].map(findings => {
      const failing = findings.filter(each => isAtLeast(each.severity, level))
      const lines = failing.map(({ page, says, text }) => {
        return `${page === null ? '' : `page ${page}: `}${says}${text === '' ? '' : ` (${text.slice(0, 80)})`}`
      })
      const failure =
        failing.length === 0
          ? ''
          : `<failure message="${plain(`${failing.length} found`)}">${plain(lines.join('\n'))}</failure>`
      return `<testcase classname="proof" name="${plain(findings[0]!.title)}">${failure}</testcase>`
    })
    const failures = cases.filter(each => each.includes('<failure')).length
    return `<testsuite name="${plain(file)}" tests="${cases.length}" failures="${failures}">${cases.join('')}</testsuite>`
  })
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites>${suites.join('')}</testsuites>\n`
}

function groupedBy(findings: readonly ToldFinding[]): Map<string, ToldFinding[]> {
  const groups = new Map<string, ToldFinding[]>()
  for (const finding of findings) groups.set(finding.check, [...(groups.get(finding.check) ?? []), finding])
  return groups
}
