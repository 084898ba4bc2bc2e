import { defineStore } from 'pinia'
import type { Wish } from '~~/core/change/registry'
import type { CheckDescription } from '~~/core/proof/check'
import type { Severity } from '~~/core/house/checks'
import { checklistFor, usualChecklist, type Checklist } from '~~/core/proof/checklist'
import { countsOf, type Finding, type Proof } from '~~/core/proof/finding'
import { deskChecklist } from '~~/shared/shelf'
import { useChange } from '../change/use-change'
import { useLinkedHouse } from '../house/use-linked-house'
import { sentenceOf, useDesk } from './desk'
import { useKeptChecklists, useKeptLicences } from './kept'
import { madeForOf } from './made-for'

/** Findings that say the same of a check: told as one row, walked one by one. */
export interface FindingGroup {
  readonly says: string
  readonly findings: readonly Finding[]
}
/** All that one check found. */
export interface CheckGroupRow {
  readonly check: string
  readonly title: string
  readonly severity: Severity
  readonly findings: readonly Finding[]
  readonly groups: readonly FindingGroup[]
  readonly more: number
}

/** The proof of the document on the desk: what was found, what of it is looked at, and the ways on. */
export const useProof = defineStore('proof', () => {
  const desk = useDesk()
  const change = useChange('proof')
  const kept = useKeptChecklists()
  const linkedHouse = useLinkedHouse()
  const licences = useKeptLicences()
  const proof = shallowRef<Proof | null>(null)
  /** What each check looks for. */
  const checks = shallowRef<readonly CheckDescription[]>([])
  const state = ref<'idle' | 'looking' | 'failed'>('idle')
  const message = ref('')
  const done = ref('')
  const panel = ref<'findings' | 'checklist' | 'compare' | 'remarks'>('findings')
  const severity = ref<'all' | Severity | 'accepted'>('all')
  /** The check that is laid open. */
  const opened = ref<string | null>(null)
  /** Findings that are walked through. */
  const walked = shallowRef<readonly Finding[]>([])
  let asked = 0

  /** The desk's own; and the one that this document goes by. */
  const deskList = computed(
    (): Checklist => kept.list.find(each => each.name === deskChecklist)?.data ?? usualChecklist,
  )
  const checklist = computed((): Checklist => checklistFor(linkedHouse.house.value, deskList.value))
  const counts = computed(() => (proof.value ? countsOf(proof.value.findings) : null))
  const accepted = computed(() => proof.value?.findings.filter(each => each.accepted !== null) ?? [])
  const shown = computed(() =>
    (proof.value?.findings ?? []).filter(each =>
      severity.value === 'accepted'
        ? each.accepted !== null
        : each.accepted === null && (severity.value === 'all' || each.severity === severity.value),
    ),
  )
  const mendable = computed(() => shown.value.filter(each => each.repair !== null && each.accepted === null))

  const rows = computed((): CheckGroupRow[] => {
    const byCheck = new Map<string, Finding[]>()
    for (const finding of shown.value) {
      const list = byCheck.get(finding.check)
      if (list) list.push(finding)
      else byCheck.set(finding.check, [finding])
    }
    const rank = { error: 0, warning: 1, note: 2 } as const
    return [...byCheck]
      .map(([check, findings]): CheckGroupRow => {
        const bySays = new Map<string, Finding[]>()
        for (const finding of findings) bySays.set(finding.says, [...(bySays.get(finding.says) ?? []), finding])
        const worst = findings.reduce<Severity>(
          (found, each) => (rank[each.severity] < rank[found] ? each.severity : found),
          'note',
        )
        return {
          check,
          title: findings[0]!.title,
          severity: worst,
          findings,
          groups: [...bySays].map(([says, own]) => ({ says, findings: own })),
          more: proof.value?.more.find(each => each.check === check)?.count ?? 0,
        }
      })
      .sort((a, b) => rank[a.severity] - rank[b.severity])
  })

  /** The finding that the walk is at. */
  const current = computed(() => walked.value[desk.at] ?? null)

  /** Looks the document over as it is now; the last one asked for wins. */
  async function look(): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    const own = ++asked
    state.value = 'looking'
    try {
      const found = await desk.engine.ask('proof', {
        house: JSON.parse(JSON.stringify(linkedHouse.house.value)) as typeof linkedHouse.house.value,
        checklist: JSON.parse(JSON.stringify(checklist.value)) as Checklist,
        madeFor: madeForOf(desk.info, licences),
      })
      if (own !== asked || found === null) return
      proof.value = found
      state.value = 'idle'
      follow()
    } catch (error) {
      if (own !== asked) return
      message.value = sentenceOf(error)
      state.value = 'failed'
    }
  }
  async function begin(): Promise<void> {
    try {
      await Promise.all([linkedHouse.load(), kept.load(), licences.load()])
      if (checks.value.length === 0) checks.value = await $fetch<CheckDescription[]>('/api/checks')
    } catch (error) {
      message.value = sentenceOf(error)
    }
    await look()
  }

  /** Marks findings on the sheets and goes to one of them. */
  function walk(findings: readonly Finding[], to?: Finding): void {
    walked.value = findings.filter(each => each.place !== null)
    desk.walkThrough(walked.value.map(each => each.place!))
    if (to) desk.at = Math.max(0, walked.value.indexOf(to))
  }

  /** Where the walk was when something was done with a finding: it goes on to the one that is there then. */
  let goesOn: number | null = null
  /**
   * What is walked through belongs to the proof before: the open check is walked on with what is left of it. Where
   * somebody types, the walk stays at the finding it was at, or nowhere.
   */
  function follow(): void {
    const before = current.value
    const row = rows.value.find(each => each.check === opened.value)
    if (!row) opened.value = null
    if (walked.value.length === 0 && goesOn === null) return
    walk(row?.findings ?? [])
    const same = (one: Finding) => before !== null && JSON.stringify(one.key) === JSON.stringify(before.key)
    const at = goesOn ?? walked.value.findIndex(same)
    desk.at = Math.min(at, walked.value.length - 1)
    goesOn = null
  }

  /** Plans what puts findings right, with what it does to the pages. */
  async function plan(findings: readonly Finding[]): Promise<void> {
    if (!desk.engine) return
    message.value = ''
    done.value = ''
    try {
      const wishes = await desk.engine.ask('proofRepairs', { findings: findings.map(each => each.id) })
      if (wishes.length === 0) {
        message.value = 'None of it could be put right within the usual limits. Nothing was changed.'
        return
      }
      if (await change.make(wishes)) change.show()
      else message.value = change.message
    } catch (error) {
      message.value = sentenceOf(error)
    }
  }
  async function apply(): Promise<void> {
    const at = desk.at
    const changed = await change.apply()
    if (!changed) return
    goesOn = Math.max(at, 0)
    change.reset()
    done.value = `Done: ${changed.version.title}`
  }

  /** Accepts findings with a reason, or tells accepted ones again: at once, as a version. */
  async function accept(findings: readonly Finding[], reason: string): Promise<boolean> {
    return keep([{ type: 'accept', findings: findings.map(each => each.key), reason }])
  }
  const reopen = (findings: readonly Finding[]) => keep([{ type: 'reopen', findings: findings.map(each => each.key) }])
  async function keep(wishes: readonly Wish[]): Promise<boolean> {
    message.value = ''
    done.value = ''
    const at = desk.at
    const changed = await change.apply(wishes)
    if (changed) {
      goesOn = Math.max(at, 0)
      done.value = `Done: ${changed.version.title}`
    } else message.value = change.message
    return changed !== null
  }

  /** Keeps the checklist of the desk, and looks again by it. */
  async function keepChecklist(list: Checklist): Promise<void> {
    if (await kept.keep(deskChecklist, { ...list, name: deskChecklist })) {
      panel.value = 'findings'
      await look()
    } else message.value = kept.message
  }

  function clear(): void {
    asked++
    proof.value = null
    walked.value = []
    opened.value = null
    message.value = ''
    done.value = ''
    panel.value = 'findings'
    severity.value = 'all'
  }

  return {
    proof,
    checks,
    state,
    message,
    done,
    panel,
    severity,
    opened,
    walked,
    current,
    checklist,
    deskList,
    counts,
    accepted,
    shown,
    mendable,
    rows,
    change,
    house: linkedHouse.house,
    look,
    begin,
    walk,
    plan,
    apply,
    accept,
    reopen,
    keepChecklist,
    clear,
  }
})
