/** What a face that has one width for all letters is called. */
const names = /\b(mono\w*|courier\w*|typewriter|consol\w*|code|menlo|monaco|fixed\w*|terminal)\b/i

const byName = new Map<string, boolean>()
/** Names are judged once: as many as a few documents have are kept. */
const mostNames = 2_000

function isNamedFixed(family: string): boolean {
  const known = byName.get(family)
  if (known !== undefined) return known
  const is = names.test(family)
  if (byName.size < mostNames) byName.set(family, is)
  return is
}

/** Whether text is set in a face of one width, as far as a file tells it: by its pitch, its kind or its name. */
export const isFixedPitch = ({
  family,
  generic,
  pitch,
}: {
  readonly family: string
  readonly generic?: string
  readonly pitch?: string
}): boolean => pitch === 'fixed' || generic === 'modern' || generic === 'fixed' || isNamedFixed(family)
