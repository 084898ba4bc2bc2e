import { effectScope, nextTick, ref } from 'vue'
import { beforeEach, describe, expect, it } from 'vitest'
import { useWalkedList } from '../../../app/kit/use-walked-list'
import { appGlobals } from '../../support/app-globals'

beforeEach(() => appGlobals(async () => []))

/** A list of so many entries with what keys do in it. */
function listOf(count: number, perRow?: number) {
  const at = ref(-1)
  const list = effectScope().run(() =>
    useWalkedList({
      count: () => count,
      rowHeight: 40,
      ...(perRow === undefined ? {} : { perRow }),
      at: () => at.value,
      go: index => {
        at.value = index
      },
    }),
  )!
  const press = (key: string) => {
    let kept = true
    const event = { key, preventDefault: () => (kept = false), stopPropagation: () => undefined }
    const led = list.walk(event as unknown as KeyboardEvent)
    expect(led, key).toBe(!kept)
    return at.value
  }
  return { list, press }
}

describe('a list that is walked through', () => {
  it('goes by arrows, pages and to its ends, and never beyond them', async () => {
    const { list, press } = listOf(100)
    expect(press('ArrowDown')).toBe(0)
    expect(press('ArrowDown')).toBe(1)
    expect(press('ArrowUp')).toBe(0)
    expect(press('ArrowUp')).toBe(0)
    // A box of 400 pixels holds ten rows: one stays in sight.
    expect(press('PageDown')).toBe(9)
    expect(press('End')).toBe(99)
    expect(press('PageDown')).toBe(99)
    expect(press('PageUp')).toBe(90)
    expect(press('Home')).toBe(0)
    await nextTick()
    expect(list.height.value).toBe(4000)
  })

  it('goes sideways only where entries stand side by side, and leaves all other keys alone', () => {
    const one = listOf(20)
    expect(one.press('ArrowRight')).toBe(-1)
    expect(one.press('a')).toBe(-1)
    const grid = listOf(50, 12)
    expect(grid.press('ArrowDown')).toBe(0)
    expect(grid.press('ArrowRight')).toBe(1)
    expect(grid.press('ArrowDown')).toBe(13)
    expect(grid.press('ArrowLeft')).toBe(12)
    expect(grid.press('ArrowUp')).toBe(0)
    expect(grid.press('End')).toBe(49)
    expect(grid.list.height.value).toBe(5 * 40)
  })

  it('stays where it is while there is nothing in it', () => {
    expect(listOf(0).press('ArrowDown')).toBe(-1)
  })
})
