import { sailingGuide } from './sailing-guide'

/** The demo's documents, made from the sources in this folder. */
export const demoDocuments: readonly { readonly fileName: string, readonly make: () => Uint8Array }[] = [
  { fileName: 'Sailing guide.odt', make: sailingGuide },
]
