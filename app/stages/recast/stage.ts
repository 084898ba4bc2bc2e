import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useRecast } from '../../stores/recast'
import RecastTray from './RecastTray.vue'

export const stage: Stage = {
  id: 'recast',
  title: 'Recast',
  place: 50,
  tray: RecastTray,
  ownScroll: true,
  walks: () => (useChange('recast').walking && useChange('recast').plan ? 'recast' : null),
  begin: () => useRecast().clear(),
}
