import { defineStore } from 'pinia'
import { contrast } from '~~/core/colour/contrast'
import { harmonicsOf } from '~~/core/colour/harmony'
import { lchOf } from '~~/core/colour/oklch'
import { lightnessReaching, mostChroma, planeFor, type Side } from '~~/core/colour/reach'
import type { HouseColor } from '~~/core/house/house'
import { ownPalettes } from '~~/core/house/own-palettes'

/** The contrasts that text is held against (WCAG 2.2, 1.4.3 and 1.4.6). */
export const wantedRatios = [3, 4.5, 7] as const

/** A palette in the making, and the plane on which a colour is looked for. */
export const useColours = defineStore('colours', () => {
  const name = ref('')
  const colors = ref<HouseColor[]>([...ownPalettes[0]!.palette.colors])
  const chosenId = ref(colors.value[0]?.id ?? '')
  const wanted = ref<(typeof wantedRatios)[number]>(4.5)
  /** Where on the plane is pointed. */
  const at = ref({ hue: 190, chroma: 0.1 })

  const ground = computed(() => colors.value.find(each => each.does === 'ground')?.color ?? '#ffffff')
  /** Colours go to the side of the ground that has more room. */
  const side = computed((): Side =>
    contrast(ground.value, '#000000') >= contrast(ground.value, '#ffffff') ? 'darker' : 'lighter',
  )
  const plane = computed(() => planeFor(ground.value, wanted.value, side.value))
  const reached = computed(() => lightnessReaching(at.value, ground.value, wanted.value, side.value))
  const chosen = computed(() => colors.value.find(each => each.id === chosenId.value) ?? null)
  /** Places of the plane that stand in a harmony with the chosen colour. */
  const marks = computed(() =>
    chosen.value === null
      ? []
      : harmonicsOf(chosen.value.color).map(each => ({ ...each, chroma: lchOf(chosen.value!.color)!.chroma })),
  )

  function point(hue: number, chroma: number): void {
    at.value = {
      hue: ((hue % 360) + 360) % 360,
      chroma: Math.round(Math.max(0, Math.min(mostChroma, chroma)) * 1000) / 1000,
    }
  }
  /** Looks at a colour of the palette: the plane goes where it lies. */
  function choose(id: string): void {
    chosenId.value = id
    const lch = chosen.value ? lchOf(chosen.value.color) : null
    if (lch) point(lch.hue, lch.chroma)
  }
  function set(next: readonly HouseColor[]): void {
    colors.value = [...next]
    if (!colors.value.some(each => each.id === chosenId.value)) chosenId.value = colors.value[0]?.id ?? ''
  }
  function take(title: string, next: readonly HouseColor[]): void {
    name.value = title
    set(next)
    choose(colors.value[0]?.id ?? '')
  }
  /** Gives the chosen colour of the palette the value that is pointed at. */
  function give(color: string): void {
    set(colors.value.map(each => (each.id === chosenId.value ? { ...each, color } : each)))
  }
  /** Puts a colour into the palette. */
  function add(color: string, title = color): void {
    let number = colors.value.length + 1
    while (colors.value.some(each => each.id === `colour-${number}`)) number++
    set([...colors.value, { id: `colour-${number}`, title, does: 'accent', color }])
    chosenId.value = `colour-${number}`
  }

  return {
    name,
    colors,
    chosenId,
    chosen,
    wanted,
    at,
    ground,
    side,
    plane,
    reached,
    marks,
    point,
    choose,
    set,
    take,
    give,
    add,
  }
})
