<script setup lang="ts">
import { roles, type ExtraRight, type Invitation, type Person, type PersonRole } from '~~/shared/people'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import { counted, dayWords } from '../desk/words'
import Choice from '../kit/Choice.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import KeysPanel from '../people/KeysPanel.vue'
import OwnPanel from '../people/OwnPanel.vue'
import PersonRow from '../people/PersonRow.vue'
import { roleSays, roleWords } from '../people/words'
import { sentenceOf } from '../stores/desk'
import { useMe } from '../stores/me'

/** Who works at this desk, what each may do, and who is asked to come. */
const store = useMe()
const people = shallowRef<readonly Person[]>([])
const invitations = shallowRef<readonly Invitation[]>([])
const message = ref('')
const done = ref('')
/** A link that was just made: it is shown once. */
const made = ref<{ who: string; address: string } | null>(null)
const name = ref('')
const role = ref<PersonRole>('designer')
const studio = ref(store.me?.studio ?? '')
const isOwner = computed(() => store.may('people'))

async function load(): Promise<void> {
  if (!isOwner.value) return
  const found = await $fetch<{ people: Person[]; invitations: Invitation[] }>('/api/people')
  people.value = found.people
  invitations.value = found.invitations
}
/** Does something and says what came of it; the list is fetched anew. */
async function act(work: () => Promise<unknown>, said = ''): Promise<void> {
  message.value = done.value = ''
  made.value = null
  try {
    await work()
    done.value = said
    await store.load()
  } catch (error) {
    message.value = sentenceOf(error)
  }
  await load().catch(() => null)
}
const nameStudio = () =>
  act(
    () => $fetch('/api/people/studio', { method: 'PUT', body: { name: studio.value } }),
    `It is called ${studio.value}.`,
  )
const linkTo = (key: string) => `${location.origin}/sign-in#key=${key}`
const invite = () =>
  act(async () => {
    const who = name.value
    const { key } = await $fetch<{ key: string }>('/api/people/invitations', {
      method: 'POST',
      body: { name: who, role: role.value, also: [] },
    })
    name.value = ''
    made.value = { who, address: linkTo(key) }
  })
const setRights = (person: Person, to: PersonRole, also: ExtraRight[]) =>
  act(
    () => $fetch(`/api/people/${person.id}`, { method: 'PUT', body: { role: to, also } }),
    `${person.name} ${roleSays[to]}. It holds from now on.`,
  )
const makeLink = (person: Person) =>
  act(async () => {
    const { key } = await $fetch<{ key: string }>(`/api/people/${person.id}/link`, { method: 'POST', body: {} })
    made.value = { who: person.name, address: linkTo(key) }
  })
const end = (person: Person) =>
  act(
    () => $fetch(`/api/people/${person.id}`, { method: 'DELETE' }),
    `${person.name} is let in no more. What they made stays, under their name.`,
  )
const withdraw = ({ id, name: who }: Invitation) =>
  act(() => $fetch(`/api/people/invitations/${id}`, { method: 'DELETE' }), `The invitation of ${who} is taken back.`)
const copied = ref(false)
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(made.value!.address).catch(() => null)
  copied.value = true
  setTimeout(() => (copied.value = false), 2000)
}
onMounted(load)
useHead({ title: 'People, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="People" />
    <div class="flex min-h-0 flex-1">
      <main class="min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-10 py-7">
        <h1>People</h1>
        <p class="max-w-[760px] text-soft">
          <template v-if="store.isShared"
            >{{ store.me?.studio }}: nothing here is seen without signing in, and what anybody does tells who did
            it.</template
          ><template v-else
            >This desk has one person. It opens without signing in, for whoever sits at this machine and for no other;
            as soon as you ask somebody to come, everybody signs in.</template
          >
        </p>
        <NoticeLine v-if="message" kind="failed">{{ message }}</NoticeLine>
        <NoticeLine v-if="done" kind="done">{{ done }}</NoticeLine>
        <div v-if="made" role="status" class="mt-3 max-w-[760px] border border-verdigris bg-sheet px-3 py-2">
          <p>
            <strong>Give {{ made.who }} this link.</strong> It is shown once, lets one person in once, and holds for
            seven days.
          </p>
          <p class="mt-1 flex items-center gap-3">
            <input class="field min-w-0 flex-1" readonly :value="made.address" aria-label="The link" />
            <button type="button" class="plain" @click="copy">{{ copied ? 'Copied' : 'Copy it' }}</button>
          </p>
        </div>
        <form v-if="isOwner" class="mt-4 flex items-end gap-3" @submit.prevent="nameStudio">
          <label class="text-[13px] text-soft"
            >The studio is called
            <input v-model="studio" class="field mt-[2px] block w-[260px] text-ink" maxlength="120" required />
          </label>
          <button type="submit" class="plain" :disabled="studio.trim() === '' || studio === store.me?.studio">
            Name it
          </button>
        </form>
        <OwnPanel class="mt-5 border border-rule bg-paper px-4 py-3" @changed="load" />
        <KeysPanel v-if="store.isShared" class="mt-5 border border-rule bg-paper px-4 py-3" />
        <section v-if="isOwner" aria-label="Who works here" class="mt-5 border border-rule bg-paper px-4 py-3">
          <h2>{{ counted(people.length, 'person', 'people') }} at work here</h2>
          <table class="mt-1 table-fixed">
            <colgroup>
              <col />
              <col class="w-[140px]" />
              <col class="w-[330px]" />
              <col class="w-[110px]" />
              <col class="w-[200px]" />
            </colgroup>
            <thead>
              <tr>
                <th scope="col">Name</th>
                <th scope="col">Is</th>
                <th scope="col">And may</th>
                <th scope="col">Last here</th>
                <th scope="col"><span class="sr-only">What can be done</span></th>
              </tr>
            </thead>
            <tbody>
              <PersonRow
                v-for="person in people"
                :key="person.id"
                :person="person"
                :own="person.id === store.me?.person?.id"
                @rights="(to, also) => setRights(person, to, also)"
                @link="makeLink(person)"
                @end="end(person)"
              />
            </tbody>
          </table>
          <template v-if="invitations.length > 0">
            <h3 class="mt-3 font-semibold">Asked to come</h3>
            <ul>
              <li v-for="each in invitations" :key="each.id" class="flex gap-4 border-b border-rule py-1">
                <span class="min-w-0 flex-1 truncate"
                  >{{ each.name }}, as {{ roleWords[each.role].toLowerCase() }}</span
                >
                <span class="text-soft">until {{ dayWords(each.until) }}</span>
                <button
                  type="button"
                  class="link"
                  :aria-label="`Take the invitation of ${each.name} back`"
                  @click="withdraw(each)"
                >
                  Take it back
                </button>
              </li>
            </ul>
          </template>
          <form class="mt-4 flex flex-wrap items-end gap-3" @submit.prevent="invite">
            <label class="text-[13px] text-soft"
              >Who shall come
              <input v-model="name" class="field mt-[2px] block w-[200px] text-ink" maxlength="120" required />
            </label>
            <label class="text-[13px] text-soft"
              >As
              <Choice v-model="role" class="mt-[2px] flex w-[130px] text-ink">
                <option v-for="each in roles" :key="each" :value="each">{{ roleWords[each] }}</option>
              </Choice></label
            >
            <button type="submit" class="act" :disabled="name.trim() === ''">Make an invitation</button>
            <span class="pb-1.5 text-[13px] text-soft">{{ roleWords[role] }}: {{ roleSays[role] }}.</span>
          </form>
          <p class="mt-3 text-[13px]">
            <a class="link" href="/api/people/log?format=csv"
              >Log of who came, what was given and what was taken away, as CSV</a
            >
          </p>
          <p class="mt-1 text-[13px] text-soft">
            <a class="link" href="/api/people/package">The whole studio as one package</a>: documents with every
            version, font files, houses, people and records, without anybody’s passphrase. Another installation takes it
            in (<code>npm run studio -- in FILE</code>).
          </p>
        </section>
      </main>
      <ShelfIndex open="people" />
    </div>
  </div>
</template>
