<script setup lang="ts">
/** The placed things of a piece, to be lined up or spread out. */
import { computed, onMounted, shallowRef } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import { tellError } from '@/shared/messages'
import { asValues, type Shifts } from '../commands/lineUp'
import LineUpChoice from './LineUpChoice.vue'

const props = defineProps<{ document: DesignData; piece: string; step: string; unit: Unit }>()
const emit = defineEmits<{ close: []; take: [moves: Record<string, Record<string, number>>] }>()
const placed = shallowRef<readonly Schemas['PlacedThing'][] | null>(null)
const things = computed(() => placed.value?.map((t) => ({ key: t.step, title: t.title, box: t.box })) ?? [])

onMounted(async () => {
  try {
    placed.value = await answer(client.POST('/api/placed', { body: { document: props.document, piece: props.piece } }))
  } catch (error) {
    tellError(error)
    emit('close')
  }
})
const take = (shifts: Shifts) => emit('take', asValues(placed.value ?? [], shifts))
</script>

<template>
  <LineUpChoice v-if="placed" :things="things" :own="step" :unit="unit" @close="emit('close')" @take="take" />
</template>
