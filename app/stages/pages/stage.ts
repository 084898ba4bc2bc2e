import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import PagesTray from './PagesTray.vue'

export const stage: Stage = {
  id: 'pages',
  title: 'Pages',
  place: 60,
  tray: PagesTray,
  walks: () => (useChange('clean-up').walking && useChange('clean-up').plan ? 'clean-up' : null),
}
