import type { Occurrence } from '~~/core/census/occurrence'
import { caretBox, rangeBoxes } from '~~/core/typeset/caret'
import { boundsOf } from '~~/core/typeset/matrix'
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import type { PageBox, SheetsInView } from './use-sheets-in-view'

/** At this zoom the caret of an empty line is seen. */
const caretZoom = 1.4

/**
 * Brings to the eye what is walked to, jumped to or written in: the page first, then the place on it, once it is drawn.
 * @param zoomOf what pages are shown at
 */
export function usePlacesShown(
  { goTo, bring: bringAt, drawnPage }: SheetsInView,
  zoomOf: { readonly value: number },
): void {
  const desk = useDesk()
  const words = useWords()
  const bring = (page: number, box: PageBox, centred: boolean) => bringAt(page, box, zoomOf.value, centred)

  /** No page shows it: it stands on a master, or on a handout. */
  async function showOnMaster(place: Occurrence): Promise<void> {
    const found = await desk.engine?.ask('where', {
      spot: { part: place.part, node: place.node, offset: place.start },
      view: 'masters',
      near: 0,
    })
    if (!found) return
    desk.show(found.view, found.page)
    const drawn = await drawnPage(found.page)
    const run = drawn?.page.runs.find(each => each.part === place.part && each.node === place.node)
    if (run && desk.current === place)
      bring(found.page, { x: run.x, y: run.y - run.ascent, width: run.width, height: run.ascent + run.descent }, true)
  }

  async function turnTo(place: Occurrence): Promise<void> {
    if (desk.arrangement === 'contact' || desk.arrangement === 'plain') desk.arrangement = 'column'
    const wanted = place.place === 'note' && desk.all.notes.length > 0 ? ('notes' as const) : ('pages' as const)
    if (desk.view !== wanted) desk.view = wanted
    await nextTick()
    const page =
      wanted === 'pages'
        ? place.page
        : Math.max(
            desk.all.notes.findIndex(sheet => sheet.number.startsWith(`${place.page + 1},`)),
            0,
          )
    goTo(page, 'middle')
  }

  async function showPlace(place: Occurrence): Promise<void> {
    await turnTo(place)
    const drawn = await drawnPage(desk.page)
    if (!drawn || desk.current !== place) return
    const spot = { part: place.part, node: place.node, offset: place.start }
    const run = drawn.page.runs.find(
      each => each.part === place.part && each.node === place.node && each.start < place.end && each.end > place.start,
    )
    if (!run) {
      // An empty line has no letters: its caret shows where it is.
      const caret = place.end === place.start ? caretBox(drawn.page, spot) : null
      if (!caret) return
      if (desk.zoom < caretZoom) {
        desk.zoom = caretZoom
        await nextTick()
      }
      await words.place(spot, false)
      bring(desk.page, caret, true)
      return
    }
    const own = { x: run.x, y: run.y - run.ascent, width: run.width, height: run.ascent + run.descent }
    const box = run.matrix ? boundsOf(run.matrix, own) : own
    // Even a lone space shall be seen: what is very small is shown larger.
    const least = 14 / (96 / 72) / Math.max(box.width, 1)
    if (desk.zoom < least && box.width < 8) {
      desk.zoom = Math.min(least, 4)
      await nextTick()
    }
    bring(desk.page, box, true)
  }

  watch(
    () => desk.current,
    async place => {
      if (place) await (place.page < 0 ? showOnMaster(place) : showPlace(place))
    },
  )
  watch(
    () => desk.jump,
    async () => {
      await nextTick()
      goTo(desk.page)
    },
  )
  watch(
    () => desk.reveal,
    async () => {
      await nextTick()
      const drawn = await drawnPage(desk.page)
      if (!drawn) return
      const box = words.hasSelection
        ? rangeBoxes(drawn.page, words.ranges)[0]
        : words.spot
          ? caretBox(drawn.page, words.spot)
          : null
      if (box) bring(desk.page, box, false)
    },
  )
}
