<script setup lang="ts">
import { kindTitles } from '~~/core/style/start-titles'
import { startKinds, type StartKind } from '~~/core/document/rules'
import type { House } from '~~/core/house/house'
import Choice from '../kit/Choice.vue'
import Term from '../kit/Term.vue'

/** Which role new text begins in, by the kind of thing it stands in. */
const props = defineProps<{ house: House }>()
const emit = defineEmits<{ change: [defaults: House['defaults']] }>()
/** A role that was taken away is shown as what it is, until another one is chosen. */
const rolesFor = (kind: StartKind) => {
  const own = props.house.defaults[kind]
  const known = props.house.roles.map(({ id, title }) => ({ id, title }))
  return own === undefined || known.some(role => role.id === own)
    ? known
    : [...known, { id: own, title: `${own}, which is not in the house` }]
}
function choose(kind: StartKind, role: string): void {
  const { [kind]: _before, ...others } = props.house.defaults
  emit('change', role === '' ? others : { ...others, [kind]: role })
}
</script>

<template>
  <section aria-label="What new text begins with">
    <p class="text-soft">
      The <Term word="defaults">defaults</Term> of documents that are dressed in this house: new text begins as the role
      is set, in the medium of the document. What is left open stays as each document has it.
    </p>
    <table class="mt-2">
      <thead>
        <tr>
          <th scope="col">New text of</th>
          <th scope="col">Begins as</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in startKinds" :key="kind">
          <td>{{ kindTitles[kind] }}</td>
          <td>
            <Choice
              :model-value="house.defaults[kind] ?? ''"
              :aria-label="`${kindTitles[kind]} begins as`"
              @update:model-value="choose(kind, $event)"
            >
              <option value="">left open</option>
              <option v-for="role in rolesFor(kind)" :key="role.id" :value="role.id">{{ role.title }}</option>
            </Choice>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
