import type { Knex } from 'knex'

/** One step of the schema, with its way back. */
export interface Migration {
  readonly name: string
  readonly up: (knex: Knex) => Promise<void>
  readonly down: (knex: Knex) => Promise<void>
}
