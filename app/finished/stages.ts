import type { Component } from 'vue'
import AddTray from './trays/AddTray.vue'
import DefaultsTray from './trays/DefaultsTray.vue'
import FontsTray from './trays/FontsTray.vue'
import HandoffTray from './trays/HandoffTray.vue'
import ProofTray from './trays/ProofTray.vue'
import RightTray from './trays/RightTray.vue'

/** A stage of the work on a finished PDF: its tab, its tray, and what a press on a page means while it is open. */
export interface FinishedStage {
  readonly id: string
  readonly title: string
  readonly tray: Component
  readonly picks: 'place' | 'line' | null
}

export const finishedStages: readonly FinishedStage[] = [
  { id: 'census', title: 'Census', tray: FontsTray, picks: null },
  { id: 'right', title: 'Put right', tray: RightTray, picks: 'line' },
  { id: 'add', title: 'Add text', tray: AddTray, picks: 'place' },
  { id: 'defaults', title: 'Defaults', tray: DefaultsTray, picks: null },
  { id: 'proof', title: 'Proof', tray: ProofTray, picks: null },
  { id: 'handoff', title: 'Handoff', tray: HandoffTray, picks: null },
]
