import type { Style } from '../../document/styles'
import type { Setting } from '../../house/house'

/** A style that text goes by, with what it does and how it shall be set. */
export interface Dressed {
  readonly style: Style
  readonly role: string | null
  readonly setting: Setting | null
  /** Why it is not dressed; null where it is. */
  readonly left: string | null
}
