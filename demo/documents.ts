import { crewHandbook } from './crew-handbook'
import { harbourNotice } from './harbour-notice'
import { sailingGuide } from './sailing-guide'

/** The demo's documents, made from the sources in this folder; the last one stands first on the shelf. */
export const demoDocuments: readonly { readonly fileName: string, readonly make: () => Uint8Array }[] = [
  { fileName: 'Crew handbook.odt', make: crewHandbook },
  { fileName: 'Harbour notice.odt', make: harbourNotice },
  { fileName: 'Sailing guide.odt', make: sailingGuide },
]
