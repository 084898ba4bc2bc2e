import { readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { connect, databaseAddress } from '../../server/store/database'
import { serverAccount, testDatabase } from './running'

testDatabase()
const server = databaseAddress({ ...process.env, ...serverAccount() })
const knex = connect(server, 1)
afterAll(() => knex.destroy())
const refused = (statement: string) => expect(knex.raw(statement)).rejects.toThrow(/denied/i)

describe('the account of servers', () => {
  it('reads and writes rows, and can do nothing else', async () => {
    await knex.transaction(async transaction => {
      await transaction('servers').insert({ id: 'account-test', seen: new Date() })
      expect(await transaction('servers').where({ id: 'account-test' }).first('id')).toEqual({ id: 'account-test' })
      await transaction('servers').where({ id: 'account-test' }).delete()
    })
    await refused('create table morphene_test.mine (a int)')
    await refused('drop table servers')
    await refused('alter table servers add column a int')
    await refused('create database other')
    await refused('select * from mysql.global_priv')
    await refused("select 'x' into outfile '/tmp/morphene-out'")
    await refused("create user 'someone'@'127.0.0.1'")
    await refused('set global max_connections = 1')
  })

  it('is no use without its secret, nor is root over the network', async () => {
    for (const [user, password] of [
      ['morphene', ''],
      ['morphene_schema', ''],
      ['root', ''],
      ['', ''],
    ] as const) {
      const other = connect({ ...server, user, password }, 1)
      await expect(other.raw('select 1')).rejects.toThrow(/denied/i)
      await other.destroy()
    }
  })
})

describe('secrets', () => {
  it('are chance, each another, in files that their owner alone reads', () => {
    const file = serverAccount().MORPHENE_DB_PASSWORD_FILE!
    const files = [file, file.replace('.server-', '.schema-')]
    for (const each of files) expect(statSync(each).mode & 0o777).toBe(0o600)
    const [one, other] = files.map(each => readFileSync(each, 'utf8'))
    expect([one!.length, other!.length, one === other]).toEqual([64, 64, false])
    // What the database was told at its start is gone.
    expect(readdirSync(dirname(file)).filter(name => name.endsWith('.sql'))).toEqual([])
    expect(statSync(join(file)).size).toBe(64)
  })
})
