import { calledNames, withNames } from '../../core/font/names'

/*
 * The simulated supplier sells faces under made-up names: copies of faces under the SIL Open Font License whose names
 * are changed, as that licence asks of changed copies.
 */

/** A copy of a font file that goes by another name. */
export function renamedFont(file: Uint8Array, family: string, style: string, licence: string): Uint8Array {
  const full = `${family} ${style}`
  return withNames(
    file,
    calledNames(
      new Map([
        [3, `${full}, simulated`],
        [13, licence],
      ]),
      family,
      style,
    ),
  )
}
