import { mediumOf } from '~~/core/house/house'
import { legibility, type Legibility } from '~~/core/house/legibility'
import { useDesk } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { useLinkedHouse } from './use-linked-house'

/**
 * How large text of the document on the desk looks from where it is read: of slides from the last row of the room of its
 * house, or of a usual room.
 */
export function useLegibility() {
  const desk = useDesk()
  const library = useLibrary()
  const { house, load } = useLinkedHouse()
  // Without its house the room is the usual one.
  onMounted(() => load().catch(() => undefined))
  const medium = computed(() => mediumOf(desk.census?.document.kind ?? 'text'))
  const height = computed(() => (medium.value === 'deck' ? desk.all.pages[0]?.height : undefined))
  /**
   * Of a size in points in a face by its hash; null where the face has no small letters to go by.
   * @param inHand it is on no slide: speaker notes are read as texts are
   */
  function seen(size: number, hash: string, inHand = false): Legibility | null {
    const xHeight = library.library?.byHash(hash)?.measures.xHeight ?? 0
    const from = inHand ? 'text' : medium.value
    return xHeight > 0 ? legibility(size, xHeight, from, house.value?.room, height.value) : null
  }
  return { medium, seen }
}
