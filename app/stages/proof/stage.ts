import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useProof } from '../../stores/proof'
import ProofTray from './ProofTray.vue'

export const stage: Stage = {
  id: 'proof',
  title: 'Proof',
  place: 80,
  tray: ProofTray,
  walks: () => (useChange('proof').walking && useChange('proof').plan ? 'proof' : null),
  begin: () => useProof().clear(),
  leave: () => useChange('proof').reset(),
}
