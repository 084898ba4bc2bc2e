<script setup lang="ts">
import { shortestPassphrase, type Session } from '~~/shared/people'
import { dayWords } from '../desk/words'
import NoticeLine from '../kit/NoticeLine.vue'
import { sentenceOf } from '../stores/desk'
import { useMe } from '../stores/me'

/** Oneself: the name that others see, what one signs in by, and the browsers that are signed in. */
const store = useMe()
const emit = defineEmits<{ changed: [] }>()
const name = ref(store.me?.person?.name ?? '')
const signIn = ref(store.me?.person?.signIn ?? '')
const passphrase = ref('')
const old = ref('')
const message = ref('')
const done = ref('')
const sessions = shallowRef<readonly Session[]>([])
const isFirst = computed(() => !store.me?.person?.signIn)

async function load(): Promise<void> {
  sessions.value = await $fetch<Session[]>('/api/me/sessions').catch(() => [])
}
async function keep(): Promise<void> {
  message.value = done.value = ''
  try {
    await $fetch('/api/me', {
      method: 'PUT',
      body: {
        name: name.value,
        signIn: signIn.value,
        passphrase: passphrase.value === '' ? null : passphrase.value,
        old: old.value,
      },
    })
    done.value = passphrase.value === '' ? 'Kept.' : 'Kept. Other browsers of yours are signed out.'
    passphrase.value = old.value = ''
    await store.load()
    await load()
    emit('changed')
  } catch (error) {
    message.value = sentenceOf(error)
  }
}
async function end(id: string): Promise<void> {
  await $fetch(`/api/me/sessions/${id}`, { method: 'DELETE' }).catch(() => null)
  await load()
}
onMounted(load)
</script>

<template>
  <section aria-label="You">
    <h2>You</h2>
    <form class="mt-1 flex flex-wrap items-end gap-3" @submit.prevent="keep">
      <label class="text-[13px] text-soft"
        >Name, as others see it
        <input v-model="name" class="field mt-[2px] block w-[200px] text-ink" autocomplete="name" required />
      </label>
      <label class="text-[13px] text-soft"
        >Name to sign in by
        <input v-model="signIn" class="field mt-[2px] block w-[160px] text-ink" autocomplete="username" required />
      </label>
      <label v-if="!isFirst" class="text-[13px] text-soft"
        >Passphrase now
        <input
          v-model="old"
          type="password"
          class="field mt-[2px] block w-[170px] text-ink"
          autocomplete="current-password"
        />
      </label>
      <label class="text-[13px] text-soft"
        >{{ isFirst ? 'Passphrase' : 'New passphrase' }}, {{ shortestPassphrase }} characters or more
        <input
          v-model="passphrase"
          type="password"
          class="field mt-[2px] block w-[240px] text-ink"
          autocomplete="new-password"
          :minlength="shortestPassphrase"
          :required="isFirst"
        />
      </label>
      <button type="submit" class="plain">Keep it</button>
    </form>
    <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
    <NoticeLine v-if="done" kind="done">{{ done }}</NoticeLine>
    <table v-if="sessions.length > 0" class="mt-3 table-fixed" aria-label="Where you are signed in">
      <colgroup>
        <col />
        <col class="w-[150px]" />
        <col class="w-[150px]" />
        <col class="w-[110px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Signed in by</th>
          <th scope="col">Since</th>
          <th scope="col">Last used</th>
          <th scope="col"><span class="sr-only">End it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in sessions" :key="each.id">
          <td class="truncate" :title="each.agent">{{ each.own ? 'this browser' : each.agent || 'a browser' }}</td>
          <td>{{ dayWords(each.created) }}</td>
          <td>{{ dayWords(each.seen) }}</td>
          <td class="text-right">
            <button v-if="each.own" type="button" class="link" @click="store.signOut()">Sign out</button>
            <button v-else type="button" class="link" @click="end(each.id)">End it</button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
