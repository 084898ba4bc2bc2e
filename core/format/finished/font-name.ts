const cut = /[-,](Bold|Italic|Oblique|Regular|Roman|Medium|Light|Semi|Demi|Black|Book|MT|PS).*$/i

/** The name of a font's family, as far as its name in a PDF tells it: “SpectralSC-BoldItalic” is of Spectral SC. */
export const familyOfFont = (name: string): string =>
  name
    .replace(cut, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .trim() || name

/** What the name says of the style: “Bold Italic”; '' where it says nothing. */
export const styleOfFont = (name: string): string =>
  (cut.exec(name)?.[0] ?? '')
    .slice(1)
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .trim()
