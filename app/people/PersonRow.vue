<script setup lang="ts">
import { extraRights, rightsOf, roles, type ExtraRight, type Person, type PersonRole } from '~~/shared/people'
import { dayWords } from '../desk/words'
import Choice from '../kit/Choice.vue'
import Tick from '../kit/Tick.vue'
import { extraWords, roleWords } from './words'

/** Somebody of the studio: what they are, what they may do beyond it, and the end of their access. */
const props = defineProps<{ person: Person; own: boolean }>()
const emit = defineEmits<{ rights: [role: PersonRole, also: ExtraRight[]]; link: []; end: [] }>()
const asking = ref(false)
const extras = computed(() => extraRights.filter(each => !rightsOf[props.person.role].includes(each)))
const toggle = (right: ExtraRight, on: boolean) =>
  emit(
    'rights',
    props.person.role,
    on ? [...props.person.also, right] : props.person.also.filter(each => each !== right),
  )
</script>

<template>
  <tr>
    <td class="truncate">
      <strong>{{ person.name }}</strong>{{ own ? ', you' : '' }}
      <span v-if="person.signIn" class="block text-[13px] text-soft">signs in as {{ person.signIn }}</span>
    </td>
    <td>
      <Choice
        class="w-[118px]"
        :model-value="person.role"
        :aria-label="`What ${person.name} is`"
        @update:model-value="emit('rights', $event, [...person.also])"
      >
        <option v-for="role in roles" :key="role" :value="role">{{ roleWords[role] }}</option>
      </Choice>
    </td>
    <td>
      <label v-for="right in extras" :key="right" class="mr-4 inline-flex items-center gap-1.5 text-[13px]"
        ><Tick :checked="person.also.includes(right)" @change="toggle(right, $event)" />{{ extraWords[right] }}</label
      >
      <span v-if="extras.length === 0" class="text-[13px] text-soft">everything</span>
    </td>
    <td>{{ person.seen ? dayWords(person.seen) : '–' }}</td>
    <td class="text-right">
      <template v-if="!own">
        <span v-if="asking" class="flex flex-wrap justify-end gap-x-3"
          ><button type="button" class="text-rubric" @click="emit('end')">End their access</button
          ><button type="button" class="link" @click="asking = false">Keep them</button></span
        >
        <template v-else
          ><button type="button" class="link mr-3" :aria-label="`Make a link for ${person.name}`" @click="emit('link')">
            Make a link</button
          ><button type="button" class="link" :aria-label="`End the access of ${person.name}`" @click="asking = true">
            End access
          </button></template
        >
      </template>
    </td>
  </tr>
</template>
