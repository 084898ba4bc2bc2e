import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useCompare } from '../../stores/compare'
import { useProof } from '../../stores/proof'
import CompareWalk from './CompareWalk.vue'
import ProofTray from './ProofTray.vue'

export const stage: Stage = {
  id: 'proof',
  title: 'Proof',
  place: 80,
  tray: ProofTray,
  walks: () => (useChange('proof').walking && useChange('proof').plan ? 'proof' : null),
  aside: () => (useCompare().walking ? CompareWalk : null),
  begin() {
    useProof().clear()
    useCompare().clear()
  },
  leave() {
    useChange('proof').reset()
    useCompare().walking = false
  },
}
