<script setup lang="ts">
import { houseToTokens } from '~~/core/house/tokens'
import { saveFile } from '../kit/save-file'
import { useHouses } from '../stores/houses'
import { useMe } from '../stores/me'

/** The versions of a house, what issuing it would change, and how it is handed on or let go. */
const houses = useHouses()
const me = useMe()
const info = computed(() => houses.info!)
const letting = ref(false)
const when = (date: string | Date) =>
  new Date(date).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
const over = computed(() => houses.trialUntil !== null && houses.trialUntil < new Date().toISOString().slice(0, 10))
async function handOnTemplate(): Promise<void> {
  const { houseToTemplate } = await import('~~/core/format/odf/house-template')
  const { working } = info.value
  const bytes = houseToTemplate(working) as Uint8Array<ArrayBuffer>
  saveFile(new Blob([bytes], { type: 'application/vnd.oasis.opendocument.text-template' }), `${working.name}.ott`)
}
function handOn(): void {
  const { working } = info.value
  saveFile(new Blob([houseToTokens(working)], { type: 'application/json' }), `${working.name}.tokens.json`)
}
</script>

<template>
  <section aria-label="Versions of this house">
    <p v-if="houses.trialUntil !== null" class="border p-3" :class="over ? 'border-rubric' : 'border-ochre'">
      {{ over ? 'This trial ended on' : 'This is a trial until' }} {{ when(houses.trialUntil) }}.
      <button type="button" class="link" @click="houses.trialUntil = null">Keep it for good</button>
    </p>
    <div v-if="info.pending.length > 0 || houses.changed" class="mt-2 border border-verdigris p-3">
      <p class="font-medium">Issuing makes version {{ info.issued + 1 }}.</p>
      <ul v-if="!houses.changed" class="mt-1 list-disc pl-5">
        <li v-for="each in info.pending.slice(0, 12)" :key="each">{{ each }}</li>
      </ul>
      <p v-else class="text-soft">What you changed is kept first.</p>
      <button type="button" class="act mt-2" :disabled="houses.busy" @click="houses.issue()">
        Issue version {{ info.issued + 1 }}
      </button>
    </div>
    <h2 class="mt-4">Versions</h2>
    <p v-if="info.versions.length === 0" class="text-soft">None was issued yet: no document follows this house.</p>
    <ol class="mt-1">
      <li v-for="each in info.versions" :key="each.number" class="border-b border-rule py-2">
        <span class="font-medium">{{ each.number }}</span>
        <span class="text-soft"
          >, {{ when(each.issued) }}{{ me.isShared ? `, issued by ${me.nameOf(each.author) || 'somebody'}` : '' }}</span
        >
        <ul class="list-disc pl-5">
          <li v-for="change in each.changes.slice(0, 8)" :key="change">{{ change }}</li>
        </ul>
      </li>
    </ol>
    <div class="mt-4 flex flex-wrap gap-2">
      <button type="button" class="plain" @click="handOn">Hand on as design tokens</button>
      <button type="button" class="plain" @click="handOnTemplate">As an OpenDocument template</button>
      <a class="plain" :href="`/api/houses/${info.id}/type-sheet?medium=${houses.medium}`" download
        >Type sheet as PDF</a
      >
      <button v-if="!letting" type="button" class="plain" @click="letting = true">Let this house go</button>
    </div>
    <div v-if="letting" class="mt-2 border border-rubric p-3">
      <p>The house and its versions go for good. Documents that are linked to it stay as they are.</p>
      <div class="mt-2 flex gap-2">
        <button type="button" class="act" @click="houses.remove()">Let {{ info.name }} go</button>
        <button type="button" class="plain" @click="letting = false">Keep it</button>
      </div>
    </div>
  </section>
</template>
