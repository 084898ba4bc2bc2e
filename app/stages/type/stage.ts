import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useType } from '../../stores/type'
import TypeTray from './TypeTray.vue'

export const stage: Stage = {
  id: 'type',
  title: 'Type',
  place: 25,
  tray: TypeTray,
  ownScroll: true,
  walks: () => (useChange('type').walking && useChange('type').plan ? 'type' : null),
  begin: () => {
    useType().done = ''
  },
  leave() {
    useType().done = ''
    useChange('type').reset()
  },
}
