import { checkDescriptions } from '../../core/proof/registry'
import { route } from '../door'

/** What the checks of a proof look for: for lists of them. */
export default route('look', () => Promise.resolve(checkDescriptions()))
