<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import { counted } from '../desk/words'
import { useAddedFaces, type Naming } from '../stores/added-faces'

/** Takes added faces of a family away, after saying which documents name it. */
const props = defineProps<{ family: string; faces: readonly FaceRecord[] }>()
const added = useAddedFaces()
const own = computed(() => props.faces.filter(face => face.source === 'added'))
/** Documents that name the family; null until that is asked. */
const naming = shallowRef<Naming | null>(null)
async function ask(): Promise<void> {
  naming.value = await added.naming(props.family).catch(() => ({ count: 0, documents: [] }))
}
watch(
  () => props.family,
  () => {
    naming.value = null
  },
)
</script>

<template>
  <p v-if="own.length > 0" class="mt-2">
    <button v-if="naming === null" type="button" class="link" @click="ask">
      Take {{ counted(own.length, 'added face') }} out of the library
    </button>
    <span v-else class="flex flex-wrap items-center gap-3"
      ><span v-if="naming.count === 0" class="text-soft">No document on the shelf names it.</span
      ><span v-else class="text-soft"
        >{{ counted(naming.count, 'document names', 'documents name') }} it:
        <template v-for="(each, index) in naming.documents" :key="each.id"
          >{{ index > 0 ? ', ' : ''
          }}<NuxtLink class="link" :to="`/documents/${each.id}`">{{ each.title }}</NuxtLink></template
        >{{ naming.count > naming.documents.length ? ' and others' : '' }}. It would be absent there; the files stay as
        they are.</span
      ><button type="button" class="text-rubric" @click="added.takeOut(faces)">Take it out</button
      ><button type="button" class="link" @click="naming = null">Keep it</button></span
    >
  </p>
</template>
