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
