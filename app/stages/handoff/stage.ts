import type { Stage } from '../../desk/stage'
import HandoffTray from './HandoffTray.vue'

export const stage: Stage = { id: 'handoff', title: 'Handoff', place: 90, tray: HandoffTray }
