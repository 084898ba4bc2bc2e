<script setup lang="ts">
import type { BatchDocument } from '~~/shared/api'
import { useAcross } from '../../stores/across'
import { counted } from '../../desk/words'

/** A plan over many documents: what it does to each, and how far it is. */
const across = useAcross()
const batch = computed(() => across.batch!)
const of = (...states: BatchDocument['state'][]) =>
  batch.value.documents.filter(each => states.includes(each.state)).length
const total = computed(() => batch.value.documents.length)
const planned = computed(() =>
  batch.value.documents.filter(each => each.state === 'planned' && !across.leftOut.includes(each.document)),
)
const atWork = computed(() => batch.value.state === 'running' || batch.value.state === 'paused')
const progress = computed(() => (batch.value.state === 'planning' ? total.value - of('waiting') : of('done', 'failed')))
const goal = computed(() => (batch.value.state === 'planning' ? total.value : of('done', 'failed', 'planned')))
const pages = computed(() =>
  planned.value.reduce((sum, each) => sum + (each.effects ? each.effects.pagesAfter - each.effects.pagesBefore : 0), 0),
)
const words = computed(() => {
  switch (batch.value.state) {
    case 'planning':
      return `Planning: ${progress.value} of ${total.value} looked at.`
    case 'planned':
      return `${[
        `${counted(planned.value.length, 'document')} would change`,
        ...(of('nothing') > 0 ? [`${of('nothing')} have nothing to change`] : []),
        ...(of('failed') > 0 ? [`${of('failed')} could not be planned`] : []),
        ...(pages.value === 0
          ? []
          : [`${counted(Math.abs(pages.value), 'page')} ${pages.value > 0 ? 'more' : 'fewer'} in all`]),
      ].join('; ')}. Nothing is changed yet.`
    case 'running':
      return `Carrying it out: ${of('done')} of ${goal.value} done.`
    case 'paused':
      return `Paused: ${of('done')} of ${goal.value} done. What is done stays done.`
    case 'cancelled':
      return `Cancelled: ${of('done')} done, and kept; the others are as they were.`
    case 'undone':
      return `Taken back in ${counted(of('undone'), 'document')}.`
    case 'done':
      return of('failed') > 0
        ? `Done: ${counted(of('done'), 'document')} changed, one version each; ${of('failed')} could not be done and stay as they were.`
        : `Done: ${counted(of('done'), 'document')} changed, one version each.`
  }
})
function said(each: BatchDocument): string {
  if (each.message !== '') return each.message
  const { effects } = each
  if (!effects) return each.state === 'waiting' ? 'waits' : ''
  return [
    `${counted(effects.places, 'place')}`,
    effects.pagesBefore === effects.pagesAfter
      ? counted(effects.pagesAfter, 'page')
      : `${effects.pagesBefore} → ${effects.pagesAfter} pages`,
    effects.paragraphsChanged === 0
      ? 'no paragraph gains or loses a line'
      : `${counted(effects.paragraphsChanged, 'paragraph')} with other lines`,
    ...(effects.overset > 0 ? [`${counted(effects.overset, 'frame')} over`] : []),
    ...(effects.missingGlyphs > 0 ? [`${counted(effects.missingGlyphs, 'sign')} missing`] : []),
  ].join(', ')
}
const stateWords: Readonly<Record<BatchDocument['state'], string>> = {
  waiting: 'waits',
  planned: 'planned',
  nothing: 'nothing to do',
  'left-out': 'left out',
  done: 'done',
  failed: 'failed',
  cancelled: 'as it was',
  undone: 'taken back',
}
function toggle(id: string): void {
  across.leftOut = across.leftOut.includes(id) ? across.leftOut.filter(each => each !== id) : [...across.leftOut, id]
}
</script>

<template>
  <button type="button" class="link" @click="across.leave()">Back to the wish</button>
  <h1 class="mt-1">{{ batch.title }}</h1>
  <p class="mt-1" role="status">{{ words }}</p>
  <progress
    v-if="batch.state === 'planning' || atWork"
    class="mt-2 block h-2 w-full"
    :value="progress"
    :max="Math.max(goal, 1)"
    :aria-label="batch.state === 'planning' ? 'Planned' : 'Done'"
  />
  <div class="mt-3 flex flex-wrap gap-2">
    <button
      v-if="batch.state === 'planned'"
      type="button"
      class="act"
      :disabled="across.busy || planned.length === 0"
      @click="across.apply()"
    >
      Carry it out in {{ counted(planned.length, 'document') }}
    </button>
    <button
      v-if="batch.state === 'running'"
      type="button"
      class="plain"
      :disabled="across.busy"
      @click="across.steer('pause')"
    >
      Pause
    </button>
    <button
      v-if="batch.state === 'paused'"
      type="button"
      class="act"
      :disabled="across.busy"
      @click="across.steer('resume')"
    >
      Go on
    </button>
    <button
      v-if="batch.state === 'planning' || batch.state === 'planned' || atWork"
      type="button"
      class="plain"
      :disabled="across.busy"
      @click="across.steer('cancel')"
    >
      Cancel
    </button>
    <button
      v-if="(batch.state === 'done' || batch.state === 'cancelled') && of('done') > 0"
      type="button"
      class="plain"
      :disabled="across.busy"
      @click="across.undo()"
    >
      Take it back in {{ counted(of('done'), 'document') }}
    </button>
  </div>
  <table class="mt-4 table-fixed">
    <colgroup>
      <col class="w-[26px]" />
      <col class="w-[168px]" />
      <col class="w-[92px]" />
      <col />
    </colgroup>
    <thead>
      <tr>
        <th scope="col"><span class="sr-only">In the plan</span></th>
        <th scope="col">Document</th>
        <th scope="col">State</th>
        <th scope="col">What it does</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="each in batch.documents.slice(0, 500)"
        :key="each.document"
        :class="{ 'text-soft': each.state === 'nothing' || across.leftOut.includes(each.document) }"
      >
        <td>
          <input
            v-if="each.state === 'planned' && batch.state === 'planned'"
            type="checkbox"
            class="mt-1"
            :checked="!across.leftOut.includes(each.document)"
            :aria-label="`${each.fileName}: in the plan`"
            @change="toggle(each.document)"
          />
        </td>
        <td class="truncate" :title="each.fileName">
          <NuxtLink
            :to="each.made ? `/records/${each.document}/${each.made}` : `/documents/${each.document}`"
            class="hover:underline"
            >{{ each.fileName }}</NuxtLink
          >
        </td>
        <td :class="{ 'text-rubric': each.state === 'failed', 'text-verdigris': each.state === 'done' }">
          {{ stateWords[each.state] }}
        </td>
        <td class="py-1" :class="{ 'text-rubric': each.state === 'failed' }">{{ said(each) }}</td>
      </tr>
    </tbody>
  </table>
</template>
