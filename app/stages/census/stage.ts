import type { Stage } from '../../desk/stage'
import CensusTray from './CensusTray.vue'

export const stage: Stage = { id: 'census', title: 'Census', place: 10, tray: CensusTray }
