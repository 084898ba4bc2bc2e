/** Relative luminance of a colour “#rrggbb” (WCAG 2.2, definition “relative luminance”). */
function luminance(color: string): number {
  const channel = (at: number) => {
    const value = Number.parseInt(color.slice(at, at + 2), 16) / 255
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
  }
  return 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5)
}

/** Contrast ratio of two colours “#rrggbb”, 1 to 21 (WCAG 2.2, definition “contrast ratio”). */
export function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** What a contrast is enough for (WCAG 2.2, 1.4.3 and 1.4.6): text of 18 pt, or of 14 pt and bold, counts as large. */
export function contrastWords(
  ratio: number,
  size: number,
  bold: boolean,
): { readonly words: string; readonly enough: boolean } {
  const large = size >= 18 || (bold && size >= 14)
  const enough = ratio >= (large ? 3 : 4.5)
  return {
    enough,
    words: `${Math.floor(ratio * 10) / 10} : 1, ${
      enough
        ? ratio >= (large ? 4.5 : 7)
          ? 'good'
          : 'enough'
        : `too little for ${large ? 'large text' : 'text of this size'}`
    }`,
  }
}
