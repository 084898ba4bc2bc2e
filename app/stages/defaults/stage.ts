import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useStyles } from '../../stores/styles'
import DefaultsTray from './DefaultsTray.vue'

export const stage: Stage = {
  id: 'defaults',
  title: 'Defaults',
  place: 70,
  tray: DefaultsTray,
  walks: () => (useChange('styles').walking && useChange('styles').plan ? 'styles' : null),
  leave: () => useStyles().leave(),
}
