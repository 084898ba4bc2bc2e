import type { Session } from '../../../../shared/people'
import { route } from '../../../door'
import { listSessions } from '../../../store/sessions'

/** The browsers that one is signed in by. */
export default route('look', (_event, acting, session): Promise<Session[]> => listSessions(acting, session))
