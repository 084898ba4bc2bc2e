<script setup lang="ts">
import type { DocumentInfo, SignOff } from '~~/shared/api'
import { sentenceOf } from '../stores/desk'
import { useMe } from '../stores/me'
import { dayWords } from '../desk/words'

/** Who signed the newest version off, or that it was changed since somebody did; and the way to sign it. */
const props = defineProps<{ info: DocumentInfo }>()
const me = useMe()
const own = shallowRef<readonly SignOff[]>(props.info.signOffs)
watch(
  () => props.info,
  info => (own.value = info.signOffs),
)
const failure = ref('')
const version = computed(() => props.info.document.version)
const now = computed(() => own.value.filter(each => each.version === version.value))
const before = computed(() => own.value.filter(each => each.version < version.value).at(-1) ?? null)
const isMine = computed(() => now.value.some(each => each.person === me.me?.person?.id))
const nameOf = (person: string) => me.nameOf(person) || 'somebody'

async function act(method: 'POST' | 'DELETE'): Promise<void> {
  failure.value = ''
  const path = `/api/documents/${props.info.document.id}/sign-off`
  try {
    own.value =
      method === 'POST'
        ? await $fetch<SignOff[]>(path, { method, body: { version: version.value } })
        : await $fetch<SignOff[]>(path, { method, query: { version: version.value } })
  } catch (error) {
    failure.value = sentenceOf(error)
  }
}
</script>

<template>
  <section aria-label="Sign-off">
    <p v-for="each in now" :key="each.person">
      <span aria-hidden="true" class="text-verdigris">✓ </span>Version {{ version }} is signed off by
      <strong>{{ nameOf(each.person) }}</strong>, {{ dayWords(each.at) }}.
    </p>
    <p v-if="now.length === 0 && before" class="text-ochre">
      <span aria-hidden="true">▲ </span>Changed since {{ nameOf(before.person) }} signed version
      {{ before.version }} off, {{ dayWords(before.at) }}.
    </p>
    <p v-if="now.length === 0 && !before" class="text-soft">No version is signed off.</p>
    <p v-if="failure" role="alert" class="text-rubric">{{ failure }}</p>
    <p v-if="info.rights.includes('sign')" class="mt-1">
      <button v-if="isMine" type="button" class="link" @click="act('DELETE')">Take my sign-off back</button>
      <button v-else type="button" class="plain" @click="act('POST')">Sign version {{ version }} off</button>
    </p>
  </section>
</template>
