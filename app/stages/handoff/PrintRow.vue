<script setup lang="ts">
import Choice from '../../kit/Choice.vue'
import Tick from '../../kit/Tick.vue'
import { sentenceOf, useDesk } from '../../stores/desk'
import HandoffRow from './HandoffRow.vue'
import { useHanding } from './use-handing'

/** A PDF to be printed: for a printing condition that is at hand, or by a profile that the printer gave. */
const desk = useDesk()
const conditions = ref<readonly { readonly id: string; readonly title: string }[]>([])
const condition = ref('')
/** The choice that stands for a profile of one's own. */
const ownProfile = 'own'
const profile = shallowRef<{ readonly name: string; readonly bytes: string } | null>(null)
const problem = ref('')
const bleed = ref(3)
const cropMarks = ref(true)
const leaveOut = ref(false)
const file = ref<HTMLInputElement | null>(null)
const { making, refused, mayNotEmbed, made, hand } = useHanding()
const profileLimit = 4_000_000

onMounted(async () => {
  try {
    conditions.value = await $fetch<{ id: string; title: string }[]>('/api/printing')
  } catch (error) {
    problem.value = sentenceOf(error)
  }
  condition.value = conditions.value[0]?.id ?? ownProfile
})

/** Takes a profile file, as a request carries it. */
async function takeProfile(event: Event): Promise<void> {
  const given = (event.target as HTMLInputElement).files?.[0]
  problem.value = ''
  if (!given) return
  if (given.size > profileLimit) {
    problem.value = `${given.name} is larger than 4 MB, the most that is taken. Nothing was sent.`
    return
  }
  const bytes = new Uint8Array(await given.arrayBuffer())
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  profile.value = { name: given.name.replace(/\.\w+$/, ''), bytes: btoa(text) }
}
const ready = computed(() => (condition.value !== '' && condition.value !== ownProfile) || profile.value !== null)
function make(): void {
  const own = profile.value
  void hand(`/api/documents/${desk.info!.document.id}/handoff`, {
    as: 'pdf',
    bleed: (bleed.value * 72) / 25.4,
    cropMarks: cropMarks.value,
    leaveOut: leaveOut.value,
    print:
      condition.value === ownProfile && own ? { profile: own.bytes, name: own.name } : { condition: condition.value },
  })
}
</script>

<template>
  <HandoffRow
    title="PDF for print"
    says="Trim and bleed, a printing condition, black text in one ink, colours in the inks of the house."
    :refused="problem || refused"
    :made="made"
  >
    <template #buttons>
      <button type="button" class="plain" :disabled="making || !ready" @click="make">
        {{ making ? 'Setting the pages' : 'Make the PDF for print' }}
      </button>
    </template>
    <label class="flex items-center gap-2 text-soft"
      >Printed as
      <Choice v-model="condition" class="w-[280px] text-ink">
        <option v-for="each in conditions" :key="each.id" :value="each.id">{{ each.title }}</option>
        <option :value="ownProfile">by a profile of my own</option>
      </Choice>
    </label>
    <template v-if="condition === ownProfile">
      <button type="button" class="plain" @click="file?.click()">
        {{ profile ? profile.name : 'Choose a profile' }}
      </button>
      <input
        ref="file"
        type="file"
        accept=".icc,.icm"
        class="sr-only"
        tabindex="-1"
        aria-label="Profile"
        @change="takeProfile"
      />
    </template>
    <label class="flex items-center gap-2 text-soft"
      >Bleed
      <Choice v-model.number="bleed" class="text-ink">
        <option :value="0">none</option>
        <option :value="3">3 mm</option>
        <option :value="5">5 mm</option>
      </Choice>
    </label>
    <label class="flex items-center gap-2"><Tick :checked="cropMarks" @change="cropMarks = $event" /> Crop marks</label>
    <label v-if="mayNotEmbed" class="flex items-center gap-2"
      ><Tick :checked="leaveOut" @change="leaveOut = $event" /> Leave out faces that may not be embedded</label
    >
  </HandoffRow>
</template>
