import { PassThrough } from 'node:stream'
import { setHeader } from 'h3'
import { route } from '../../door'
import { tellAudit } from '../../store/audit'
import { studioName } from '../../store/people'
import { writeStudio } from '../../store/studio-package'
import { complain } from '../../work/complaints'
import { attachment } from '../../work/requests'

/** All that is the studio's, as one package: whoever takes it is told of in the log. */
export default route('people', async (event, acting) => {
  await tellAudit(acting, 'studio taken')
  setHeader(event, 'Content-Type', 'application/gzip')
  setHeader(event, 'Content-Disposition', attachment(`${await studioName(acting)}.tar.gz`))
  const stream = new PassThrough()
  // Whoever reads may leave in the middle; the answer has begun by then.
  writeStudio(acting.knex, acting.actor.owner, stream).catch((error: unknown) => complain('a studio’s package', error))
  return stream
})
