<script setup lang="ts">
import { shortestPassphrase, type Session } from '~~/shared/people'
import { dayWords } from '../desk/words'
import NoticeLine from '../kit/NoticeLine.vue'
import { isWayFault, providerFaults } from './words'
import { lengthUnits } from '~~/core/style/typed'
import Choice from '../kit/Choice.vue'
import { sentenceOf } from '../stores/desk'
import { useMe } from '../stores/me'
import { useWays } from '../stores/ways'

/** Oneself: the name that others see, what one signs in by, and the browsers that are signed in. */
const store = useMe()
const emit = defineEmits<{ changed: [] }>()
const units = useWays().way('units')
const unitWords = { mm: 'millimetres', cm: 'centimetres', in: 'inches', pt: 'points' } as const
const name = ref(store.me?.person?.name ?? '')
const signIn = ref(store.me?.person?.signIn ?? '')
const passphrase = ref('')
const old = ref('')
const message = ref('')
const done = ref('')
const sessions = shallowRef<readonly Session[]>([])
const isFirst = computed(() => !store.me?.person?.signIn)
const provider = computed(() => store.me?.provider ?? null)
const connected = computed(() => store.me?.connected ?? false)
/** Whoever signs in through the provider needs neither a name nor a passphrase of this desk. */
const mayGoWithout = computed(() => isFirst.value && connected.value && passphrase.value === '')

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
        signIn: signIn.value.trim() === '' && mayGoWithout.value ? null : signIn.value,
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
async function connect(): Promise<void> {
  message.value = done.value = ''
  try {
    const body = { for: 'connect' }
    const { address } = await $fetch<{ address: string }>('/api/provider/begin', { method: 'POST', body })
    location.assign(address)
  } catch (error) {
    message.value = sentenceOf(error)
  }
}
async function disconnect(): Promise<void> {
  message.value = done.value = ''
  try {
    await $fetch('/api/me/identity', { method: 'DELETE' })
    await store.load()
    done.value = `You sign in through ${provider.value} no more.`
  } catch (error) {
    message.value = sentenceOf(error)
  }
}
/** What came of going to the provider stands in the address, once. */
const { provider: came } = useRoute().query
if (came === 'done') done.value = `From now on you sign in through ${provider.value}, too.`
else if (isWayFault(came)) message.value = providerFaults(provider.value ?? 'The provider')[came]
if (came !== undefined) history.replaceState(history.state, '', location.pathname)
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
        <input
          v-model="signIn"
          class="field mt-[2px] block w-[160px] text-ink"
          autocomplete="username"
          :required="!mayGoWithout"
        />
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
          :required="isFirst && !connected"
        />
      </label>
      <button type="submit" class="plain">Keep it</button>
    </form>
    <p v-if="provider" class="mt-2 text-[13px] text-soft">
      <template v-if="connected"
        >You sign in through {{ provider }}{{ isFirst ? '.' : ', too.' }}
        <button type="button" class="link" @click="disconnect">Sign in through it no more</button></template
      ><button v-else type="button" class="link" @click="connect">Sign in through {{ provider }} from now on</button>
    </p>
    <div class="mt-3 flex items-center gap-3 text-[13px] text-soft">
      <label class="flex items-center gap-2"
        >Places and sizes on pages in
        <Choice v-model="units" class="w-[150px] text-ink">
          <option v-for="unit in lengthUnits" :key="unit" :value="unit">{{ unitWords[unit] }}</option>
        </Choice></label
      >
      <span>Sizes of type are points always. What is marked on the sheets goes with you, too.</span>
    </div>
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
