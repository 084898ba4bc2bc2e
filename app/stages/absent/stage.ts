import type { Stage } from '../../desk/stage'
import { useAbsent } from '../../stores/absent'
import AbsentTray from './AbsentTray.vue'

export const stage: Stage = {
  id: 'absent',
  title: 'Absent',
  place: 20,
  tray: AbsentTray,
  begin: () => useAbsent().clear(),
}
