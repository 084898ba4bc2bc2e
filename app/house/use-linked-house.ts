import type { House } from '~~/core/house/house'
import type { HouseRow } from '~~/shared/api'
import { useDesk } from '../stores/desk'

/** The house that the document on the desk is linked to, in the version that was issued last. */
export function useLinkedHouse() {
  const desk = useDesk()
  const houses = shallowRef<readonly HouseRow[]>([])
  const house = shallowRef<House | null>(null)
  const linked = computed(() => desk.info?.document.house ?? null)
  const row = computed(() => houses.value.find(each => each.id === linked.value) ?? null)

  /** Fetches the version that counts; a house that was never issued has none. */
  async function fetchHouse(): Promise<void> {
    house.value = null
    if (!row.value || row.value.issued === 0) return
    house.value = await $fetch<House>(`/api/houses/${row.value.id}/versions/${row.value.issued}`)
  }
  async function load(): Promise<void> {
    houses.value = await $fetch<HouseRow[]>('/api/houses')
    await fetchHouse()
  }
  return { houses, house, linked, row, load, fetchHouse }
}
