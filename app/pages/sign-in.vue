<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { shortestPassphrase, wayWithin } from '~~/shared/people'
import NoticeLine from '../kit/NoticeLine.vue'
import { providerFaults, isWayFault } from '../people/words'
import { sentenceOf } from '../stores/desk'
import { useMe } from '../stores/me'

/** The way in: by name and passphrase, by an invitation, or by a link that an owner made. */
const route = useRoute()
const signIn = ref('')
const passphrase = ref('')
const name = ref('')
const message = ref('')
const busy = ref(false)
/** What the link in the address is for; null for none. Its key stands behind the #, which no server is sent. */
const link = ref<{ name: string; studio: string; joins: boolean } | null>(null)
const key = ref('')
const field = ref<HTMLInputElement | null>(null)

async function begin(): Promise<void> {
  await store.load().catch(() => null)
  const { provider: came } = route.query
  message.value = isWayFault(came) ? providerFaults(provider.value ?? 'The provider')[came] : ''
  key.value = new URLSearchParams(location.hash.slice(1)).get('key') ?? ''
  history.replaceState(history.state, '', location.pathname + location.search)
  if (key.value !== '')
    try {
      link.value = await $fetch('/api/link', { method: 'POST', body: { key: key.value } })
      name.value = link.value!.name
    } catch (error) {
      message.value = sentenceOf(error)
    }
  // Whoever began to type meanwhile is not taken away from where they are.
  if (!(document.activeElement instanceof HTMLInputElement)) field.value?.focus()
}
onMounted(begin)
useEventListener('hashchange', () => location.hash.includes('key=') && void begin())

/** Only ways within this desk are gone on to. */
const onwards = computed(() => wayWithin(String(route.query.to ?? '/')))
async function send(path: string, body: object, to = onwards.value): Promise<void> {
  busy.value = true
  message.value = ''
  try {
    await $fetch(path, { method: 'POST', body })
    location.assign(to)
  } catch (error) {
    message.value = sentenceOf(error)
    busy.value = false
  }
}
const come = () => send('/api/sign-in', { signIn: signIn.value, passphrase: passphrase.value })
const join = () =>
  send('/api/join', { key: key.value, name: name.value, signIn: signIn.value, passphrase: passphrase.value }, '/')
const store = useMe()
const provider = computed(() => store.me?.provider ?? null)
/** To the provider: to sign in, or to join by the link. */
async function throughProvider(): Promise<void> {
  busy.value = true
  message.value = ''
  const asked = link.value?.joins
    ? { for: 'join', key: key.value, name: name.value }
    : { for: 'sign-in', to: onwards.value }
  try {
    const { address } = await $fetch<{ address: string }>('/api/provider/begin', { method: 'POST', body: asked })
    location.assign(address)
  } catch (error) {
    message.value = sentenceOf(error)
    busy.value = false
  }
}
const comeByLink = () => send('/api/come-in', { key: key.value }, '/people')
useHead({ title: 'Sign in, Morphene' })
</script>

<template>
  <main class="h-full overflow-y-auto bg-desk px-10 py-14">
    <div class="max-w-[430px] border border-rule bg-paper p-7">
      <p class="font-serif text-[26px] leading-none">Morphene</p>
      <form v-if="link?.joins" class="mt-5" @submit.prevent="join">
        <h1>Come to work here</h1>
        <p class="text-soft">
          You are asked to “{{ link.studio }}”. Say who you are, and choose what you will sign in by.
        </p>
        <label class="mt-4 block text-[13px] text-soft"
          >Your name, as others see it
          <input ref="field" v-model="name" class="field mt-[2px] w-full text-ink" autocomplete="name" required />
        </label>
        <label class="mt-3 block text-[13px] text-soft"
          >A short name to sign in by
          <input v-model="signIn" class="field mt-[2px] w-full text-ink" autocomplete="username" required />
        </label>
        <label class="mt-3 block text-[13px] text-soft"
          >A passphrase: {{ shortestPassphrase }} characters or more, some words that only you put together
          <input
            v-model="passphrase"
            type="password"
            class="field mt-[2px] w-full text-ink"
            autocomplete="new-password"
            :minlength="shortestPassphrase"
            required
          />
        </label>
        <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
        <button type="submit" class="act mt-4" :disabled="busy">Join</button>
        <p v-if="provider" class="mt-4 border-t border-rule pt-3 text-[13px] text-soft">
          Or without a passphrase of this desk:
          <button type="button" class="link" :disabled="busy || name.trim() === ''" @click="throughProvider">
            join through {{ provider }}
          </button>
        </p>
      </form>
      <form v-else-if="link" class="mt-5" @submit.prevent="comeByLink">
        <h1>Welcome back, {{ link.name }}</h1>
        <p class="text-soft">This link lets you in once. Choose a new passphrase then, on People.</p>
        <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
        <button type="submit" class="act mt-4" :disabled="busy">Come in</button>
      </form>
      <form v-else class="mt-5" @submit.prevent="come">
        <h1>Sign in</h1>
        <p class="text-soft">Several people share this desk.</p>
        <label class="mt-4 block text-[13px] text-soft"
          >The name you sign in by
          <input ref="field" v-model="signIn" class="field mt-[2px] w-full text-ink" autocomplete="username" required />
        </label>
        <label class="mt-3 block text-[13px] text-soft"
          >Passphrase
          <input
            v-model="passphrase"
            type="password"
            class="field mt-[2px] w-full text-ink"
            autocomplete="current-password"
            required
          />
        </label>
        <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
        <div class="mt-4 flex items-center gap-4">
          <button type="submit" class="act" :disabled="busy">Sign in</button>
          <button v-if="provider" type="button" class="plain" :disabled="busy" @click="throughProvider">
            Sign in through {{ provider }}
          </button>
        </div>
        <p class="mt-4 text-[13px] text-soft">
          Passphrase forgotten? An owner of the studio can make a link by which you come in once.
        </p>
      </form>
    </div>
  </main>
</template>
