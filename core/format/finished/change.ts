import { counted } from '../../change/words'
import { drawAdded, saidOf, type AddedLook, type FinishedChange, type SettingTools } from './add-text'
import { FinishedReader } from './reader'
import { FinishedPdfError, openPdf, type FinishedPdf } from './open'
import { drawRight, type Correction, type CorrectionPlan } from './put-right'
import type { WishedChange } from './wish'

/** What came of changes, with a name for them; how added text came out, how lines were put right, and what could not be. */
export interface FinishedOutcome extends FinishedChange {
  readonly title: string
  readonly added: readonly AddedLook[]
  readonly corrected: readonly CorrectionPlan[]
  readonly refused: readonly string[]
}

const short = (text: string) => {
  const plain = text.replace(/\s+/g, ' ').trim()
  return plain.length > 60 ? `${plain.slice(0, 59)}…` : plain
}

type Wished<T extends WishedChange['type']> = Extract<WishedChange, { type: T }>
const ofType = <T extends WishedChange['type']>(changes: readonly WishedChange[], type: T) =>
  changes.filter((each): each is Wished<T> => each.type === type)

/**
 * Carries changes out on a finished PDF, as one update behind its bytes. What was there stays byte for byte: the result
 * begins with it. Places are those of the file as it is. Of several, those that cannot be made are told and left out.
 * @throws FinishedPdfError with the reason, where none of them can be made
 */
export async function changeFinished(
  bytes: Uint8Array,
  changes: readonly WishedChange[],
  tools: SettingTools,
): Promise<FinishedOutcome> {
  const finished = await openPdf(bytes)
  const said: string[] = []
  const refused: string[] = []
  const added: AddedLook[] = []
  const corrected: CorrectionPlan[] = []
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work()
    } catch (error) {
      if (!(error instanceof FinishedPdfError)) throw error
      refused.push(error.message)
    }
  }
  for (const correction of oneALine(finished, ofType(changes, 'put-right')))
    await attempt(async () => {
      const made = await drawRight(finished, correction, tools)
      corrected.unshift(made.plan)
      said.unshift(...made.said)
    })
  for (const text of ofType(changes, 'add-text'))
    await attempt(async () => {
      const made = await drawAdded(finished, text, tools)
      added.push(made.look)
      said.push(...made.said)
    })
  if (corrected.length + added.length === 0)
    throw new FinishedPdfError(refused[0] ?? 'There is nothing to be done. Nothing was changed.')
  return {
    title: titleOf(changes, corrected, added),
    bytes: await finished.pdf.commit(),
    said: [...said, ...saidOf(finished)],
    added,
    corrected,
    refused,
  }
}

/**
 * Corrections of one line as one, the last line first: a line that a stand-in sets is drawn anew at the page's end, and
 * those behind it would be counted otherwise.
 */
function oneALine(finished: FinishedPdf, corrections: readonly Correction[]): Correction[] {
  const byLine = new Map<string, Correction[]>()
  for (const each of corrections) {
    const key = JSON.stringify([each.page, each.line])
    byLine.set(key, [...(byLine.get(key) ?? []), each])
  }
  const reader = new FinishedReader(finished)
  return [...byLine.values()]
    .map(own => {
      const [first, ...more] = [...own].sort((a, b) => a.from - b.from)
      return more.reduce((one, next) => joined(reader, one, next), first!)
    })
    .sort((a, b) => b.page - a.page || b.line - a.line)
}

/** Two corrections of a line as one, with what stands between them. Where they overlap the first one holds. */
function joined(reader: FinishedReader, one: Correction, next: Correction): Correction {
  if (next.from < one.to) return one
  const between = reader.placeAt(one.page, one.line, one.to, next.from)?.text ?? ''
  return { ...one, to: next.to, words: one.words + between + next.words }
}

function titleOf(
  changes: readonly WishedChange[],
  corrected: readonly CorrectionPlan[],
  added: readonly AddedLook[],
): string {
  const [only] = changes
  if (changes.length > 1 || !only) {
    const right = corrected.length > 0 ? `put ${counted(corrected.length, 'line')} right` : ''
    const more = added.length > 0 ? `added ${counted(added.length, 'text')}` : ''
    const words = [right, more].filter(Boolean).join(', ')
    return words.charAt(0).toUpperCase() + words.slice(1)
  }
  const [plan] = corrected
  return only.type === 'add-text'
    ? `Added “${short(only.text)}” on page ${only.page}`
    : `Put right “${short(plan!.line)}” to “${short(plan!.becomes)}” on page ${only.page}`
}
