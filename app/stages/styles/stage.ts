import { useChange } from '../../change/use-change'
import type { Stage } from '../../desk/stage'
import { useStages } from '../../desk/stages'
import { useStyles } from '../../stores/styles'
import StylesTray from './StylesTray.vue'

export const stage: Stage = {
  id: 'styles',
  title: 'Styles',
  place: 30,
  tray: StylesTray,
  walks: () => (useChange('styles').walking && useChange('styles').plan ? 'styles' : null),
  begin: () => useStyles().clear(),
  leave() {
    const styles = useStyles()
    styles.leave()
    styles.done = ''
    styles.message = ''
  },
  /** Alt with a figure gives the text that is meant the style on that key; Alt with S goes to the search of the styles. */
  altKey(event) {
    const styles = useStyles()
    const figure = /^Digit([1-9])$/.exec(event.code)?.[1]
    const pinned = figure === undefined ? undefined : styles.pins[figure]
    if (pinned) void styles.applyStyle(pinned)
    else if (event.code === 'KeyS') {
      styles.leave()
      useStages().go('styles')
      styles.searching++
    } else return false
    return true
  },
}
