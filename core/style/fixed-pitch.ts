/** What a face that has one width for all letters is called. */
const names = /\b(mono\w*|courier\w*|typewriter|consol\w*|code|menlo|monaco|fixed\w*|terminal)\b/i

/** Whether text is set in a face of one width, as far as a file tells it: by its pitch, its kind or its name. */
export const isFixedPitch = ({
  family,
  generic,
  pitch,
}: {
  readonly family: string
  readonly generic?: string
  readonly pitch?: string
}): boolean => pitch === 'fixed' || generic === 'modern' || generic === 'fixed' || names.test(family)
