<script setup lang="ts">
import { licenceUses, type LicenceUse } from '~~/core/font/licence'
import { notAllowed } from '~~/core/font/held-licence'
import Tick from '../../kit/Tick.vue'
import { sentenceOf, useDesk } from '../../stores/desk'
import { useType } from '../../stores/type'

/** What the document is made for, ticked once, and which of its faces are not licensed for that. */
const desk = useDesk()
const type = useType()
const failure = ref('')
const uses = ref<readonly LicenceUse[]>(desk.info?.document.uses ?? [])
onMounted(() => void type.load())
async function toggle(use: LicenceUse): Promise<void> {
  const before = uses.value
  uses.value = before.includes(use) ? before.filter(each => each !== use) : [...before, use]
  failure.value = ''
  try {
    await $fetch(`/api/documents/${desk.info!.document.id}/uses`, { method: 'PUT', body: { uses: uses.value } })
    desk.madeFor(uses.value)
  } catch (error) {
    uses.value = before
    failure.value = sentenceOf(error)
  }
}
const families = computed(() => [
  ...new Set((desk.census?.faces ?? []).filter(face => face.status === 'present').map(face => face.family)),
])
const faults = computed(() =>
  families.value.flatMap(family => {
    const entry = type.all.find(each => each.family === family)
    if (!entry) return []
    const missing = notAllowed(entry.licence, uses.value)
    return missing.length > 0 || entry.licence.ended ? [{ family, missing, ended: entry.licence.ended }] : []
  }),
)
</script>

<template>
  <section aria-label="Licences of its faces">
    <h2 class="mt-6">What it is made for</h2>
    <p class="text-soft">Ticked once; its faces are held against it here and where faces are chosen.</p>
    <div class="mt-2 flex flex-wrap gap-x-5 gap-y-1">
      <label v-for="use in licenceUses" :key="use" class="flex items-center gap-1.5"
        ><Tick :checked="uses.includes(use)" @change="toggle(use)" /> {{ use }}</label
      >
    </div>
    <p v-if="failure" role="alert" class="mt-2 text-rubric">{{ failure }}</p>
    <ul v-if="faults.length > 0" class="notice mt-3">
      <li v-for="fault in faults" :key="fault.family">
        <strong>{{ fault.family }}</strong><template v-if="fault.ended"
          >: its licence ended on {{ fault.ended }}</template
        ><template v-for="each in fault.missing" :key="each.use"
          >; {{ each.use }} {{ each.right }} ({{ each.from }})</template
        >
      </li>
    </ul>
    <p v-else-if="uses.length > 0 && type.all.length > 0" class="mt-2 text-soft">
      All {{ families.length }} families that it has and that are here may be used for that.
    </p>
  </section>
</template>
