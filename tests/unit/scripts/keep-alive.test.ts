import { EventEmitter } from 'node:events'
import type { ChildProcess } from 'node:child_process'
import { beforeEach, describe, expect, it } from 'vitest'
import { keepAlive } from '../../../scripts/keep-alive.mjs'

/** A process that ends when it is told to. */
const child = () => new EventEmitter() as ChildProcess
/** Lets all that waits go on. */
const soon = () => new Promise(resolve => setImmediate(resolve))

describe('what the start command keeps alive', () => {
  let time = 0
  const said: string[] = []
  const gaveUp: string[] = []
  const made: ChildProcess[] = []
  const told = { say: (line: string) => said.push(line), gaveUp: (why: string) => gaveUp.push(why), now: () => time }
  const start = () => {
    const next = child()
    made.push(next)
    return Promise.resolve(next)
  }
  beforeEach(() => {
    time = 0
    for (const list of [said, gaveUp, made]) list.length = 0
  })

  it('is started again when it ends by itself, and that is said', async () => {
    const first = child()
    const kept = keepAlive('the server', first, start, told)
    expect(kept.child).toBe(first)
    first.emit('exit', null, 'SIGKILL')
    await soon()
    expect(kept.child).toBe(made[0])
    made[0]!.emit('exit', 1, null)
    await soon()
    expect(kept.child).toBe(made[1])
    expect(said).toEqual([
      'the server ended by itself (SIGKILL): it is started again',
      'the server ended by itself (code 1): it is started again',
    ])
    expect(gaveUp).toEqual([])
  })

  it('is given up when it ends too often within a minute, and not when it does over a day', async () => {
    const kept = keepAlive('the server', child(), start, told)
    for (let times = 0; times < 20; times++) {
      time += 20_000
      kept.child.emit('exit', 1, null)
      await soon()
    }
    expect([made.length, gaveUp]).toEqual([20, []])
    for (let times = 0; times < 6; times++) {
      time += 1000
      kept.child.emit('exit', 1, null)
      await soon()
    }
    expect(gaveUp).toHaveLength(1)
    expect(gaveUp[0]).toMatch(/ended 6 times within a minute \(code 1\)/)
  })

  it('is given up when it cannot be started again', async () => {
    const first = child()
    keepAlive('the database', first, () => Promise.reject(new Error('the port is taken')), told)
    first.emit('exit', 1, null)
    await soon()
    expect(gaveUp).toEqual(['the database could not be started again: the port is taken'])
  })

  it('is let end when it is to be ended', async () => {
    const first = child()
    const kept = keepAlive('the server', first, start, told)
    kept.stop()
    first.emit('exit', 0, null)
    await soon()
    expect([made, said, gaveUp]).toEqual([[], [], []])
  })
})
