import { getQuery } from 'h3'
import { z } from 'zod'
import { database } from '../store/database'
import { startsOf } from '../store/folders'
import { answer } from '../work/answer'

/** What new documents begin with: of the folder of the query, or of the whole desk. */
export default answer(async event =>
  startsOf(await database(), z.string().max(120).default('').parse(getQuery(event).folder)),
)
