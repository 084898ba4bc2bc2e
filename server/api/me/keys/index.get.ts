import type { ProgramKey } from '../../../../shared/people'
import { route } from '../../../door'
import { listProgramKeys } from '../../../store/program-keys'

/** One's own keys for programs, without what lets in. */
export default route('look', (_event, acting): Promise<ProgramKey[]> => listProgramKeys(acting))
