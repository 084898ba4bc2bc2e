import type { FaceKerning, KerningRow } from '~~/core/census/kerning'
import type { KernWish, PairCorrection, PlaceCorrection } from '~~/core/change/kerning/wish'
import { useDesk } from '../../stores/desk'

/** What a correction holds for. */
export type KerningReach = 'face' | 'family' | 'here'

/** A correction that was made and is not carried out yet. */
interface Drafted {
  readonly reach: KerningReach
  readonly amount: number
  readonly row: KerningRow
  readonly face: FaceKerning
  /** Which of the row's places is meant, where one alone is. */
  readonly place: number
}

/** The pairs of letters of the document on the desk, and the corrections that are being made. */
export function useKerning() {
  const desk = useDesk()
  const faces = shallowRef<readonly FaceKerning[]>([])
  const chosen = ref('')
  const reach = ref<KerningReach>('face')
  const drafts = shallowRef<ReadonlyMap<string, Drafted>>(new Map())
  const loading = ref(false)
  /** Which place of the chosen pair is looked at. */
  const place = ref(0)

  const face = computed(() => faces.value.find(each => each.hash === chosen.value) ?? faces.value[0] ?? null)
  const keyOf = (of: FaceKerning, { left, right }: Pick<KerningRow, 'left' | 'right'>) =>
    JSON.stringify([of.hash, left, right])
  const kerns = computed(() => new Map(face.value?.rows.map(row => [JSON.stringify([row.left, row.right]), row]) ?? []))

  async function load(): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    loading.value = true
    try {
      faces.value = await desk.engine.ask('kerning', {})
    } finally {
      loading.value = false
    }
  }

  const stored = (row: KerningRow): number => row.inFace ?? row.inFamily ?? 0
  const draftOf = (row: KerningRow) => (face.value ? drafts.value.get(keyOf(face.value, row)) : undefined)
  /** What a pair is set apart by, with what is being corrected. */
  const amountOf = (row: KerningRow): number => draftOf(row)?.amount ?? stored(row)
  /** What stands between two letters of the face, its own kerning and corrections together. */
  function between(left: string, right: string): number {
    const row = kerns.value.get(JSON.stringify([left, right]))
    return row ? row.kern + amountOf(row) : 0
  }
  /** The same without the corrections that are being made. */
  function before(left: string, right: string): number {
    const row = kerns.value.get(JSON.stringify([left, right]))
    return row ? row.kern + stored(row) : 0
  }

  function set(row: KerningRow, amount: number): void {
    const of = face.value
    if (!of) return
    const next = new Map(drafts.value)
    const whole = Math.round(Math.max(-500, Math.min(amount, 500)))
    if (whole === stored(row) && reach.value !== 'here') next.delete(keyOf(of, row))
    else next.set(keyOf(of, row), { reach: reach.value, amount: whole, row, face: of, place: place.value })
    drafts.value = next
  }
  function forget(): void {
    drafts.value = new Map()
  }

  /** Another reach holds for what is being corrected in the row that is chosen, too. */
  function reachFor(row: KerningRow | null, to: KerningReach): void {
    reach.value = to
    const draft = row ? draftOf(row) : undefined
    if (row && draft) set(row, draft.amount)
  }

  /** All corrections that are being made, as one wish; null where there are none. */
  const wish = computed((): KernWish | null => {
    const pairs: PairCorrection[] = []
    const places: PlaceCorrection[] = []
    for (const draft of drafts.value.values()) {
      const { left, right } = draft.row
      const own = draft.row.places[draft.place]
      if (draft.reach === 'here' && own)
        places.push({ part: own.part, node: own.node, from: own.from, amount: draft.amount })
      else if (draft.reach !== 'here')
        pairs.push({
          family: draft.face.family,
          ...(draft.reach === 'face' ? { style: draft.face.style } : {}),
          left,
          right,
          amount: draft.amount,
        })
    }
    return pairs.length + places.length === 0 ? null : { type: 'kern', pairs, places }
  })

  /** All corrections that the document has by now, as one wish that others can be asked, too; null where it has none. */
  const made = computed((): KernWish | null => {
    const pairs = faces.value.flatMap(of =>
      of.rows.flatMap(({ left, right, inFace, inFamily }): PairCorrection[] => [
        ...(inFace === null ? [] : [{ family: of.family, style: of.style, left, right, amount: inFace }]),
        ...(inFamily === null ? [] : [{ family: of.family, left, right, amount: inFamily }]),
      ]),
    )
    // What holds for a family is told with each of its faces.
    const once = new Map(pairs.map(pair => [JSON.stringify(pair), pair]))
    return once.size === 0 ? null : { type: 'kern', pairs: [...once.values()].slice(0, 500), places: [] }
  })

  return {
    made,
    faces,
    face,
    chosen,
    reach,
    drafts,
    loading,
    place,
    wish,
    load,
    amountOf,
    stored,
    draftOf,
    between,
    before,
    set,
    forget,
    reachFor,
  }
}
