import { registry } from '../core/change/registry'
import { houseFromPair } from '../core/house/make-house'
import { proofOf } from '../core/proof/proof'
import { DocumentSession } from '../core/session'
import { compose } from '../core/typeset/compose'
import { Typesetter } from '../core/typeset/look'
import { crewHandbook } from '../demo/crew-handbook'
import { benchParagraphs, handMadeDocument } from './text'

type Row = readonly [string, string, string?]

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!
const timed = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}

/** A proof by all checks against the full typesetting of its document in the same round; pages and census are there. */
async function proofRatio(rounds: number, bytes: Uint8Array, typesetter: Typesetter): Promise<number> {
  const { document } = await DocumentSession.start(bytes, typesetter)
  const all: number[] = []
  for (let round = 0; round < rounds; round++) {
    const session = new DocumentSession(document, new Typesetter(typesetter.library, typesetter.shaper))
    const set = timed(() => session.composition)
    void [session.detail, session.absent]
    all.push(timed(() => proofOf(session)) / set)
  }
  return median(all)
}

/** Drawing up, dressing and proofing, each against the full typesetting of its document in the same round. */
export async function houseRows(rounds: number, typesetter: Typesetter): Promise<Row[]> {
  const ratios = async (bytes: Uint8Array, wish: object, effects: boolean) => {
    const document = (await DocumentSession.start(bytes, typesetter)).document
    const all: number[] = []
    for (let round = 0; round < rounds; round++) {
      const own = new Typesetter(typesetter.library, typesetter.shaper)
      const session = new DocumentSession(document, own)
      void session.reading
      const set = timed(() => compose(session.reading, new Typesetter(typesetter.library, typesetter.shaper)))
      void session.composition
      const request = registry.schema.parse({ wishes: [wish] })
      all.push(timed(() => registry.plan(session, request, { effects })) / set)
    }
    return median(all)
  }
  const byHand = handMadeDocument(benchParagraphs(120_000), 1_000)
  const house = houseFromPair('Bench', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 })
  return [
    [
      'drawing up 1,000 automatic styles',
      `${(await ratios(byHand, { type: 'draw-up' }, false)).toFixed(2)} × typesetting`,
      '3.00 × typesetting',
    ],
    [
      'dressing the handbook, with its page effects',
      `${(await ratios(crewHandbook(), { type: 'dress', house }, true)).toFixed(2)} × typesetting`,
      '2.00 × typesetting',
    ],
    [
      'proof of the handbook, all checks',
      `${(await proofRatio(rounds, crewHandbook(), typesetter)).toFixed(2)} × typesetting`,
      '1.00 × typesetting',
    ],
  ]
}
