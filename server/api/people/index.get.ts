import type { Invitation, Person } from '../../../shared/people'
import { route } from '../../door'
import { listInvitations, listPeople } from '../../store/people'

/** Who works here, and who is asked to come. */
export default route('people', async (_event, acting): Promise<{ people: Person[]; invitations: Invitation[] }> => ({
  people: await listPeople(acting),
  invitations: await listInvitations(acting),
}))
