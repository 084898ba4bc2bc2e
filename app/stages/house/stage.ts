import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import HouseTray from './HouseTray.vue'

export const stage: Stage = {
  id: 'house',
  title: 'House',
  place: 35,
  tray: HouseTray,
  walks: () => (useChange('house').walking && useChange('house').plan ? 'house' : null),
  leave: () => useChange('house').reset(),
}
