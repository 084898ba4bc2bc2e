<script setup lang="ts">
import type { KeyRight, ProgramKey } from '~~/shared/people'
import { dayWords } from '../desk/words'
import Choice from '../kit/Choice.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import { sentenceOf } from '../stores/desk'

/** Keys by which one's own programs ask this desk: made, told once, ended. */
const keys = shallowRef<readonly ProgramKey[]>([])
const name = ref('')
const may = ref<KeyRight>('look')
const days = ref('90')
const made = ref('')
const message = ref('')
const mayWords: Readonly<Record<KeyRight, string>> = {
  look: 'looks',
  take: 'looks and takes files away',
  change: 'changes documents, too',
}
const spans = ['7', '30', '90', '366']

async function load(): Promise<void> {
  keys.value = await $fetch<ProgramKey[]>('/api/me/keys').catch(() => [])
}
async function attempt(work: () => Promise<void>): Promise<void> {
  message.value = ''
  try {
    await work()
  } catch (error) {
    message.value = sentenceOf(error)
  }
  await load()
}
const make = () =>
  attempt(async () => {
    const body = { name: name.value, may: may.value, days: Number(days.value) }
    made.value = (await $fetch<{ key: string }>('/api/me/keys', { method: 'POST', body })).key
    name.value = ''
  })
const end = (id: string) =>
  attempt(async () => {
    await $fetch(`/api/me/keys/${id}`, { method: 'DELETE' })
    made.value = ''
  })
onMounted(load)
</script>

<template>
  <section aria-label="Keys for programs">
    <h2>Keys for programs</h2>
    <p class="text-soft">
      A program sends its key with what it asks (<code>Authorization: Bearer …</code>), and may never do more than you.
    </p>
    <form class="mt-1 flex flex-wrap items-end gap-3" @submit.prevent="make">
      <label class="text-[13px] text-soft"
        >What it is for
        <input v-model="name" class="field mt-[2px] block w-[220px] text-ink" maxlength="120" />
      </label>
      <span class="text-[13px] text-soft"
        >It
        <Choice v-model="may" aria-label="What the program may do" class="mt-[2px] min-w-[210px] text-[14px] text-ink">
          <option v-for="(words, right) in mayWords" :key="right" :value="right">{{ words }}</option>
        </Choice></span
      >
      <span class="text-[13px] text-soft"
        >for
        <Choice v-model="days" aria-label="For how many days" class="mt-[2px] min-w-[100px] text-[14px] text-ink">
          <option v-for="each in spans" :key="each" :value="each">{{ each }} days</option>
        </Choice></span
      >
      <button type="submit" class="plain" :disabled="name.trim() === ''">Make a key</button>
    </form>
    <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
    <label v-if="made" class="mt-2 block text-[13px] text-soft"
      >Keep this key now: it is shown once
      <input
        class="field mt-[2px] block w-[420px] text-ink"
        readonly
        :value="made"
        @focus="($event.target as HTMLInputElement).select()"
    /></label>
    <table v-if="keys.length > 0" class="mt-3 table-fixed" aria-label="Your keys for programs">
      <thead>
        <tr>
          <th scope="col">For</th>
          <th scope="col">It</th>
          <th scope="col">Last used</th>
          <th scope="col">Until</th>
          <th scope="col"><span class="sr-only">End it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in keys" :key="each.id">
          <td class="truncate" :title="each.name">{{ each.name }}</td>
          <td>{{ mayWords[each.may] }}</td>
          <td>{{ each.seen ? dayWords(each.seen) : 'never' }}</td>
          <td>{{ dayWords(each.until) }}</td>
          <td class="text-right">
            <button type="button" class="link" :aria-label="`End the key for ${each.name}`" @click="end(each.id)">
              End it
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
