import type { Ref } from 'vue'
import { contrast, contrastWords } from '~~/core/colour/contrast'
import { worstGround, type StyleGround } from '~~/core/proof/style-grounds'

/** Fields that say a ground, the nearest to the words first. */
const groundIds = ['background', 'ground', 'cellground', 'fillcolor'] as const
const isColor = (value: string | undefined): value is string => value !== undefined && /^#[0-9a-f]{6}$/i.test(value)

/** A style that is being set up, by the ids of its fields. */
interface Edited {
  /** What it says or inherits; undefined where nothing does. */
  readonly valueOf: (id: string) => string | undefined
  readonly isChanged: (id: string) => boolean
  readonly size: Readonly<Ref<number>>
  readonly weight: Readonly<Ref<number>>
  /** What its text stands on. */
  readonly grounds: Readonly<Ref<readonly StyleGround[]>>
}

/** The colour of a style's text, its own ground, and in words whether the one can be read on what it really stands on. */
export function useContrast({ valueOf, isChanged, size, weight, grounds }: Edited) {
  const color = computed(() => valueOf('color') ?? '#000000')
  const ground = computed(() => {
    // A frame's colour is no ground where it is not filled with it.
    const ids = groundIds.filter(id => id !== 'fillcolor' || valueOf('fill') === 'solid')
    return ids.map(valueOf).find(isColor) ?? '#ffffff'
  })
  const contrasted = computed(() => {
    if (!isColor(color.value)) return null
    // A ground of its own that is being changed holds for all its text.
    const worst = groundIds.some(isChanged) ? null : worstGround(color.value, grounds.value)
    if (!worst) return contrastWords(contrast(color.value, ground.value), size.value, weight.value >= 700)
    const { on, page, ...smallest } = worst.ground
    const said = contrastWords(worst.ratio, smallest.size, smallest.weight >= 700)
    if (grounds.value.length === 1 && worst.on === '#ffffff') return said
    const where = on === 'plain' ? `on ${worst.on}` : `on a ${on}`
    return { ...said, words: `${said.words}, ${where}, page ${page + 1}` }
  })
  return { color, ground, contrasted }
}
