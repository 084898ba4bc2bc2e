import { basename } from 'node:path'
import type { Registry } from '../core/change/registry'
import { saveDocument } from '../core/document/open'
import { severities, type Severity } from '../core/house/checks'
import { checklistFor, checklistSchema, type Checklist } from '../core/proof/checklist'
import { madeForNothing } from '../core/font/held-licence'
import { licenceUses, type LicenceUse } from '../core/font/licence'
import { proofOf } from '../core/proof/proof'
import { repairWishes } from '../core/proof/repairs'
import { countWords, isAtLeast, proofedFile, proofJunit, type ProofedFile } from '../core/proof/report'
import { proofPdf } from '../core/format/pdf/proof-report'
import { finishedProofed } from '../core/format/finished/report'
import type { House } from '../core/house/house'
import type { DocumentSession } from '../core/session'
import { CommandError, single, type Call, type Outcome } from './call'
import { read, sources, write } from './files'
import { houseOf } from './house'
import { finishedProofPdf } from '../core/format/finished/proof-report'
import { isPdf, pdfFindings, pdfMended, tools } from './finished'
import { eachFile, requestOf, type Open } from './plans'
import { padded } from './report'
import { writeReport } from './report-file'

/** @throws CommandError where the file holds no checklist */
function checklistOf(path: string | undefined): Checklist | undefined {
  if (path === undefined) return undefined
  const text = new TextDecoder().decode(read(path))
  try {
    return checklistSchema.parse(JSON.parse(text))
  } catch {
    throw new CommandError(`“${path}” is no checklist: it needs {"checks": {"straight-quote": {"runs": false}, …}}`)
  }
}

/** What documents are made for, by comma: “print, web page”. */
function usesOf(words: readonly string[]): LicenceUse[] {
  return words
    .flatMap(each => each.split(','))
    .map(each => {
      const use = licenceUses.find(known => known.toLowerCase() === each.trim().toLowerCase())
      if (!use) throw new CommandError(`--made-for takes ${licenceUses.join(', ')}, by comma`)
      return use
    })
}

function levelOf(word: string | undefined): Severity {
  if (word === undefined) return 'error'
  const level = severities.find(severity => severity === word)
  if (!level) throw new CommandError(`--fail-on takes ${severities.join(', ')}`)
  return level
}

/** Findings are listed up to this many for each document. */
const listed = 200

function textOf({ findings, more }: ProofedFile): string {
  const open = findings.filter(finding => finding.accepted === null)
  const accepted = findings.length - open.length
  return [
    `${countWords(findings)}${accepted > 0 ? `; ${accepted} accepted` : ''}`,
    ...padded(
      open
        .slice(0, listed)
        .map(({ title, severity, page, says, text, repairable }) => [
          severity,
          page === null ? '' : `page ${page}`,
          title,
          says.slice(0, 100),
          text === '' ? '' : `“${text.slice(0, 50)}”`,
          repairable ? 'can be put right' : '',
        ]),
    ),
    ...(open.length > listed ? [`  and ${open.length - listed} more`] : []),
    ...more.map(({ check, count }) => `  and ${count} more of ${check}`),
  ].join('\n')
}

/** By what files are looked over, and whether what can be put right is. */
interface Looking {
  readonly house: House | null
  readonly checklist: Checklist
  /** What the documents are made for. */
  readonly uses: readonly LicenceUse[]
  readonly repairs: boolean
}

/** A document that is set here: looked over, and mended by plan. */
async function ofDocument(
  session: DocumentSession,
  path: string,
  out: string | null,
  { house, checklist, repairs, uses }: Looking,
  kinds: Registry,
  call: Call,
): Promise<{ readonly file: ProofedFile; readonly said: string }> {
  const own = proofOf(session, {
    house,
    checklist,
    madeFor: { ...madeForNothing, uses },
  })
  const report = await writeReport(call, session, works =>
    proofPdf(own, { fileName: basename(path), version: null, by: byWords(call, house) }, session, works),
  )
  const pageNumbers = session.composition.pages.map(page => page.number)
  const mendable = own.findings.filter(finding => finding.repair !== null && finding.accepted === null)
  const wishes = repairs ? repairWishes(mendable, session, kinds) : []
  const file = proofedFile(path, own, pageNumbers)
  if (out === null || wishes.length === 0)
    return { file, said: [report, repairs ? unmended(wishes.length) : ''].filter(Boolean).join('\n') }
  const { plan, after } = kinds.plan(session, requestOf(kinds, { wishes }))
  write(out, saveDocument(after.document))
  const { pagesBefore, pagesAfter } = plan.effects!
  return {
    file,
    said: [
      ...(report === '' ? [] : [report]),
      `${plan.places} places put right; pages ${pagesBefore} before, ${pagesAfter} after; written: ${out}`,
    ].join('\n'),
  }
}

/** A finished PDF: looked over by what its pages show, and its words put right behind the bytes that were there. */
async function ofFinished(
  path: string,
  out: string | null,
  { house, checklist, repairs, uses }: Looking,
  call: Call,
): Promise<{ readonly file: ProofedFile; readonly said: string }> {
  const { findings, reader } = await pdfFindings(path, house, checklist, { ...madeForNothing, uses })
  const file = finishedProofed(path, findings)
  const of = { fileName: basename(path), version: null, by: byWords(call, house) }
  const report = await writeReport(call, tools(), works =>
    finishedProofPdf(findings, of, { bytes: read(path), reader }, works),
  )
  const changes = repairs ? findings.flatMap(finding => finding.repair ?? []) : []
  const said =
    out === null || changes.length === 0
      ? repairs
        ? unmended(changes.length)
        : ''
      : await pdfMended(path, out, changes)
  return { file, said: [report, said].filter(Boolean).join('\n') }
}

/** By what a document is looked over, in words. */
const byWords = (call: Call, house: House | null): string =>
  call.options.has('--checklist')
    ? `the checklist ${basename(single(call, '--checklist')!)}`
    : house?.checks
      ? `the checklist of the house ${house.name}`
      : 'the usual checklist'

const unmended = (mendable: number): string =>
  mendable > 0 ? 'nothing was written' : 'nothing can be put right: nothing was written'

/**
 * Looks documents and finished PDFs over by all checks. With --repair, what can be put right is, and written to --out. It
 * ends with 2 where something of at least --fail-on is found, errors where nothing is said.
 */
export async function proof(call: Call, open: Open, kinds: Registry): Promise<Outcome> {
  const house = call.options.has('--house') ? houseOf(call) : null
  const looking: Looking = {
    house,
    checklist: checklistOf(single(call, '--checklist')) ?? checklistFor(house),
    uses: usesOf(call.options.get('--made-for') ?? []),
    repairs: call.switches.has('--repair'),
  }
  const level = levelOf(single(call, '--fail-on'))
  if (looking.repairs && !call.options.has('--out'))
    throw new CommandError('--repair needs --out: where the mended file goes')
  const done: ProofedFile[] = []
  const { text, code } = await eachFile(call, async ({ path }, out) => {
    if (call.options.has('--report') && sources(call.files).length > 1)
      throw new CommandError('--report takes one document: of several --json tells all')
    const { file, said } = isPdf(path)
      ? await ofFinished(path, out, looking, call)
      : await ofDocument(await open(path), path, out, looking, kinds, call)
    done.push(file)
    return { text: [textOf(file), said].filter(Boolean).join('\n'), data: file, changed: true }
  })
  const failed = done.some(({ findings }) =>
    findings.some(finding => finding.accepted === null && isAtLeast(finding.severity, level)),
  )
  return {
    text: call.switches.has('--junit')
      ? proofJunit(done, level)
      : call.switches.has('--json') && sources(call.files).length === 1
        ? JSON.stringify([JSON.parse(text)], null, 2)
        : text,
    code: code === 3 ? 3 : failed ? 2 : 0,
  }
}
