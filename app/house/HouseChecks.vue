<script setup lang="ts">
import type { CheckDescription } from '~~/core/proof/check'
import { checksWords, type ListedChecks } from '~~/core/house/checks'
import { usualChecklist } from '~~/core/proof/checklist'
import { deskChecklist } from '~~/shared/shelf'
import Term from '../kit/Term.vue'
import ChecksEditor from '../proof/ChecksEditor.vue'
import { sentenceOf } from '../stores/desk'
import { useKeptChecklists } from '../stores/kept'

/** Which checks proofs of a house's documents run, where the house says so itself. */
defineProps<{ list: ListedChecks | null }>()
const emit = defineEmits<{ change: [list: ListedChecks | null] }>()
const kept = useKeptChecklists()
const checks = shallowRef<readonly CheckDescription[]>([])
const message = ref('')
onMounted(async () => {
  try {
    const [found] = await Promise.all([$fetch<CheckDescription[]>('/api/checks'), kept.load()])
    checks.value = found
  } catch (error) {
    message.value = sentenceOf(error)
  }
})
const ofDesk = computed(() => kept.list.find(each => each.name === deskChecklist)?.data ?? usualChecklist)
const take = () => emit('change', JSON.parse(JSON.stringify(ofDesk.value.checks)) as ListedChecks)
</script>

<template>
  <section aria-label="Checks of the house">
    <p v-if="message" role="alert" class="text-rubric">{{ message }}</p>
    <template v-if="list === null">
      <p class="text-soft">
        This house leaves it to the desk which checks a proof runs. It can say so itself: then all its documents are
        looked over alike, whatever the desk’s own <Term word="checklist">checklist</Term> says.
      </p>
      <button type="button" class="plain mt-2" @click="take">Say it in this house</button>
    </template>
    <template v-else>
      <p class="text-soft">
        Proofs of its documents go by this <Term word="checklist">checklist</Term>
        {{ checksWords(list) ? `(${checksWords(list)})` : '(all as usual)' }}, once a version with it is issued.
      </p>
      <div class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="plain" @click="take">Take the desk’s anew</button>
        <button type="button" class="plain" @click="emit('change', null)">Leave it to the desk</button>
      </div>
      <ChecksEditor :checks="checks" :list="list" @change="emit('change', $event)" />
    </template>
  </section>
</template>
