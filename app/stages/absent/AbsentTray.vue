<script setup lang="ts">
import { useAbsent } from '../../stores/absent'
import { useDesk } from '../../stores/desk'
import { counted } from '../../desk/words'
import AbsentFacePanel from './AbsentFacePanel.vue'
import StandInsPanel from '../../type/StandInsPanel.vue'
import Term from '../../kit/Term.vue'

const desk = useDesk()
const absent = useAbsent()
const gone = computed(() => absent.faces.filter(face => face.status === 'absent'))
const used = computed(() => gone.value.filter(face => face.characters > 0 || face.emptyMarks > 0))
const named = computed(() => gone.value.filter(face => face.characters === 0 && face.emptyMarks === 0))
const aliases = computed(() => absent.faces.length - gone.value.length)
const amount = (face: (typeof absent.faces)[number]) =>
  face.onlySpaces
    ? face.characters === 1
      ? 'one space'
      : `${face.characters} spaces`
    : face.characters > 0
      ? counted(face.characters, 'character')
      : face.emptyMarks > 0
        ? counted(face.emptyMarks, 'empty line')
        : 'named, no text'

watch(
  () => [desk.generation, desk.state],
  () => {
    void absent.refresh()
  },
  { immediate: true },
)
onMounted(() => {
  void absent.fetchCarried()
})
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <h1><Term word="absent">Absent</Term> faces</h1>
    <p v-if="absent.faces.length === 0" class="text-soft">Every face that this document names is in the library.</p>
    <p v-else-if="gone.length === 0" class="text-soft">
      No face is absent without a stand-in of its kind. {{ counted(aliases, 'family is', 'families are') }} shown by
      faces that are made to take their place.
    </p>
    <p v-else-if="used.length === 0" class="text-soft">
      No text is set in an absent face; {{ counted(named.length, 'family', 'families') }} that the library lacks
      {{ named.length === 1 ? 'is' : 'are' }} only named. Opening and saving changes nothing about them.
    </p>
    <p v-else class="text-soft">
      {{ counted(used.length, 'family', 'families') }} that the document names
      {{ used.length === 1 ? 'is' : 'are' }} not in the library, and text is set in
      {{ used.length === 1 ? 'it' : 'them'
      }}<template v-if="named.length > 0"
        >; {{ named.length }} more {{ named.length === 1 ? 'is' : 'are' }} only named</template
      >.
      <template v-if="aliases > 0"
        >{{ aliases }} more {{ aliases === 1 ? 'is' : 'are' }} shown by faces that are made to take
        {{ aliases === 1 ? 'its' : 'their' }} place. </template
      >Opening and saving changes nothing about them.
    </p>
    <p v-if="absent.done" role="status" class="mt-3 border border-verdigris bg-sheet px-3 py-2">{{ absent.done }}</p>
    <p v-if="absent.message" role="alert" class="mt-3 border border-rubric bg-sheet px-3 py-2 text-rubric">
      {{ absent.message }}
    </p>
    <ul class="mt-3 border-t border-ink">
      <li v-for="face in absent.faces" :key="face.family" class="border-b border-rule">
        <button
          type="button"
          class="flex w-full items-baseline gap-3 py-2 text-left"
          :aria-expanded="absent.open === face.family"
          @click="absent.choose(absent.open === face.family ? null : face.family)"
        >
          <span aria-hidden="true" :class="face.status === 'absent' ? 'text-iris' : 'text-soft'">{{
            face.status === 'absent' ? '◇' : '≈'
          }}</span>
          <span
            class="min-w-0 flex-1 truncate text-[16px] font-semibold"
            :class="{ 'text-iris': face.status === 'absent' }"
            >{{ face.family }}</span
          >
          <span class="tabular-nums">{{ amount(face) }}</span>
          <span class="w-[170px] truncate text-right text-soft">{{
            face.standIn ? `shown in ${face.standIn}` : ''
          }}</span>
        </button>
        <AbsentFacePanel v-if="absent.open === face.family" :face="face" />
      </li>
    </ul>
    <StandInsPanel
      class="mt-6"
      says="Who shows the text of absent faces."
      :stand-ins="desk.standIns"
      :absent="absent.faces.map(each => each.family)"
      :in-folder="desk.info?.folder !== null"
      :busy="absent.busy !== ''"
      :set="absent.setStandIn"
    />
  </div>
</template>
