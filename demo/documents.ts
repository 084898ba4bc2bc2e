import type { HandoffWorks } from '../core/format/handoff/hand-off'
import type { Typesetter } from '../core/typeset/look'
import { berthContract } from './berth-contract'
import { crewHandbook } from './crew-handbook'
import { galleyMenu } from './galley-menu'
import { harbourNotice } from './harbour-notice'
import { safetyCard } from './safety-card'
import { sailingGuide } from './sailing-guide'
import { seasonReview } from './season-review'
import { winterTariff } from './winter-tariff'

/** The demo's documents, made from the sources in this folder; the last one stands first on the shelf. */
export const demoDocuments: readonly { readonly fileName: string; readonly make: () => Uint8Array }[] = [
  { fileName: 'Winter tariff.odt', make: winterTariff },
  { fileName: 'Crew handbook.odt', make: crewHandbook },
  { fileName: 'Harbour notice.odt', make: harbourNotice },
  { fileName: 'Safety card.odg', make: safetyCard },
  { fileName: 'Galley menu.odg', make: galleyMenu },
  { fileName: 'Season review.odp', make: seasonReview },
  { fileName: 'Sailing guide.odt', make: sailingGuide },
]

/** Finished PDFs of the demo: they are set by the desk's own engine before somebody else's hands come to them. */
export const finishedDocuments: readonly {
  readonly fileName: string
  readonly make: (typesetter: Typesetter, works: HandoffWorks) => Promise<Uint8Array>
}[] = [{ fileName: 'Berth contract.pdf', make: berthContract }]
