import { getQuery } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { offers, supplierName } from '../../library/supplier'

/** What the simulated supplier has; with `query` what goes by that name. */
export default route('look', event => {
  const query = z.string().max(200).default('').parse(getQuery(event).query)
  return Promise.resolve({ supplier: supplierName, offers: offers(query) })
})
