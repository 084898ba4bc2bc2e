import type { Stage } from '../../desk/stage'
import { useSwap } from '../../stores/swap'
import SwapTray from './SwapTray.vue'

export const stage: Stage = {
  id: 'swap',
  title: 'Swap',
  place: 40,
  tray: SwapTray,
  ownScroll: true,
  // A swap is walked at once, but while a family is tried out on the sheets.
  walks: () => (useSwap().plan && useSwap().previewing === '' ? 'swap' : null),
  begin: () => useSwap().reset(),
  leave: () => useSwap().endPreview(),
}
