<script setup lang="ts">
/** Turns and laps that give the longest hinge for a loss that one accepts, to compare and take. */
import { onMounted, ref, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import PathPicture from '@/shared/components/PathPicture.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import { tellError } from '@/shared/messages'
import { formatFigure } from '@/shared/units/figures'
import { formatLength } from '@/shared/units/lengths'

const props = defineProps<{ document: DesignData; piece: string; curve: Schemas['LapCurve']; unit: Unit; colour: string }>()
const emit = defineEmits<{ close: []; take: [join: Schemas['JoinView']] }>()
const open = ref(true)
const loss = ref(Math.max(40, Math.round(props.curve.loss * 1.5)))
const joins = ref<Schemas['JoinView'][]>([])
const busy = ref(false)

async function find() {
  busy.value = true
  try {
    const body = { document: props.document, piece: props.piece, loss: loss.value }
    joins.value = [...(await answer(client.POST('/api/joins', { body })))]
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}
onMounted(find)
watch(loss, find)
const say = (mm: number) => formatLength(mm, props.unit)
const turned = (degrees: number) => (degrees ? `turned ${Math.abs(degrees)}° ${degrees > 0 ? 'clockwise' : 'the other way'}` : 'not turned')
</script>

<template>
  <ElDialog v-model="open" title="Find the best join" width="900px" align-center @closed="emit('close')">
    <div class="wish">
      <span>Each half may lose</span>
      <NumberInput :model-value="loss" :whole="false" suffix="mm²" label="Loss accepted" :min="0.1" :max="100000" @update:model-value="(v) => (loss = v)" />
      <span class="soft">Now: lap {{ say(curve.lap) }}, hinge {{ say(curve.hinge) }}, {{ formatFigure(curve.loss, 'mm2', unit) }} lost.</span>
    </div>
    <div class="joins" :aria-busy="busy">
      <button v-for="(j, i) in joins" :key="i" class="plain-button join" @click="emit('take', j)">
        <span class="picture"><PathPicture v-if="j.picture" :path="j.picture.path" :box="j.picture.box" :folds="j.picture.folds" :perforated="j.picture.perforated" :drawn="j.picture.drawn" :colour="colour" /></span>
        <strong class="figure">hinge {{ say(j.hinge) }}</strong>
        <span>{{ j.spans === 1 ? 'one span' : `${j.spans} spans` }}, lap {{ say(j.lap) }}</span>
        <span class="soft">{{ turned(j.turn_deg) }}, {{ formatFigure(j.loss, 'mm2', unit) }} lost</span>
        <span class="take">Take it</span>
      </button>
      <p v-if="!joins.length && !busy" class="soft">No turn within 10° joins the halves in a span of 6 mm or more for so small a loss.</p>
    </div>
    <p class="soft">Turned by up to 10° either way. Spans under 6 mm tear and are not counted.</p>
  </ElDialog>
</template>

<style scoped>
.wish {
  display: grid;
  grid-template-columns: auto 130px 1fr;
  gap: 12px;
  align-items: center;
}
.joins {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
  margin: 14px 0 10px;
  min-height: 180px;
}
.join {
  display: grid;
  gap: 1px;
  padding: 8px 12px;
  border: 1.5px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
}
.join:hover {
  border-color: var(--accent);
}
.picture {
  height: 120px;
}
.take {
  color: var(--accent-strong);
  font-weight: 600;
}
</style>
