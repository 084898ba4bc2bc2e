import { check, type Found } from '../check'
import type { Subject } from '../subject'
import { sizeAndLeading, type VoiceLook } from '../../census/voices'

/** A voice in a printer’s way, with its tracking where it has some. */
const lookWords = (voice: VoiceLook): string =>
  `${voice.family} ${sizeAndLeading(voice)}${voice.tracking === '' ? '' : `, tracked ${voice.tracking}`}`

function* twin(subject: Subject): Generator<Found> {
  const { census, occurrences } = subject.session.detail
  for (const voice of census.voices) {
    if (voice.twinOf === null) continue
    const other = census.voices.find(each => each.key === voice.twinOf)
    const place = occurrences.find(each => each.voice === voice.key && subject.textAt(each.part, each.node))
    const text = place && subject.textAt(place.part, place.node)
    if (!other || !text) continue
    // What a frame or cell says by hand for all of its text is no one voice's to give up.
    const byHand = text.runs
      .filter(run => run.start < place.end && run.end > place.start)
      .some(run =>
        run.style.effective.layers.some(layer => layer.local && (layer.from === 'frame' || layer.from === 'cell')),
      )
    yield {
      says: `${lookWords(voice)}: nobody tells it from ${lookWords(other)}`,
      at: { text, from: place.start, to: place.end },
      ...(byHand ? {} : { repair: { wishes: [{ type: 'fold-voice' as const, from: voice.key, to: other.key }] } }),
    }
  }
}

export const twins = check({
  id: 'twin',
  group: 'consistency',
  title: 'Twin voices',
  severity: 'warning',
  looksFor: 'Two looks so near that a reader cannot tell them apart; the rarer one is told, once.',
  source: 'The census: the same face, sizes and leading within a few per cent.',
  unseen: 'Looks that differ in colour alone.',
  find: twin,
})
