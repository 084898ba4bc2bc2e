import type { Registry } from '../core/change/registry'
import { saveDocument } from '../core/document/open'
import { severities, type Severity } from '../core/proof/check'
import { checklistSchema, type Checklist } from '../core/proof/checklist'
import { proofOf } from '../core/proof/proof'
import { repairWishes } from '../core/proof/repairs'
import { countWords, isAtLeast, proofJunit, toldFinding, type ProofedFile } from '../core/proof/report'
import { CommandError, single, type Call, type Outcome } from './call'
import { read, sources, write } from './files'
import { houseOf } from './house'
import { each, requestOf, type Open } from './plans'
import { padded } from './report'

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

function levelOf(word: string | undefined): Severity {
  if (word === undefined) return 'error'
  const level = severities.find(severity => severity === word)
  if (!level) throw new CommandError(`--fail-on takes ${severities.join(', ')}`)
  return level
}

/** Findings are listed up to this many for each document. */
const listed = 200

function textOf({ proof, pageNumbers }: ProofedFile): string {
  const { findings, more } = proof
  const open = findings.filter(finding => finding.accepted === null)
  const accepted = findings.length - open.length
  return [
    `${countWords(findings)}${accepted > 0 ? `; ${accepted} accepted` : ''}`,
    ...padded(
      open.slice(0, listed).map(finding => {
        const { severity, page, says, text, repairable } = toldFinding(finding, pageNumbers)
        return [
          severity,
          page === null ? '' : `page ${page}`,
          finding.title,
          says.slice(0, 100),
          text === '' ? '' : `“${text.slice(0, 50)}”`,
          repairable ? 'can be put right' : '',
        ]
      }),
    ),
    ...(open.length > listed ? [`  and ${open.length - listed} more`] : []),
    ...more.map(({ check, count }) => `  and ${count} more of ${check}`),
  ].join('\n')
}

/**
 * Looks documents over by all checks. With --repair, what can be put right is, and written to --out. It ends with 2 where
 * something of at least --fail-on is found, errors where nothing is said.
 */
export async function proof(call: Call, open: Open, kinds: Registry): Promise<Outcome> {
  const house = call.options.has('--house') ? houseOf(call) : null
  const checklist = checklistOf(single(call, '--checklist'))
  const level = levelOf(single(call, '--fail-on'))
  const repairs = call.switches.has('--repair')
  if (repairs && !call.options.has('--out')) throw new CommandError('--repair needs --out: where the mended file goes')
  const done: ProofedFile[] = []
  const { text, code } = await each(call, open, (session, { path }, out) => {
    const own = proofOf(session, { house, ...(checklist ? { checklist } : {}) })
    const pageNumbers = session.composition.pages.map(page => page.number)
    const file: ProofedFile = { file: path, proof: own, pageNumbers }
    done.push(file)
    const mendable = own.findings.filter(finding => finding.repair !== null && finding.accepted === null)
    const wishes = repairs ? repairWishes(mendable, session, kinds) : []
    let said = textOf(file)
    if (out !== null && wishes.length > 0) {
      const { plan, after } = kinds.plan(session, requestOf(kinds, { wishes }))
      write(out, saveDocument(after.document))
      const { pagesBefore, pagesAfter } = plan.effects!
      said += `\n${plan.places} places put right; pages ${pagesBefore} before, ${pagesAfter} after; written: ${out}`
    } else if (repairs)
      said += wishes.length > 0 ? '\nnothing was written' : '\nnothing can be put right: nothing was written'
    const findings = own.findings.map(finding => toldFinding(finding, pageNumbers))
    return { text: said, data: { file: path, findings, more: own.more }, changed: true }
  })
  const failed = done.some(({ proof: { findings } }) =>
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
