<script setup lang="ts">
/** Turns and laps that give the longest hinge for a loss that one accepts, to compare and take. */
import { onMounted, ref, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import PathPicture from '@/shared/components/PathPicture.vue'
import LengthInput from '@/shared/components/LengthInput.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import { tellError } from '@/shared/messages'
import { formatFigure, formatMeasures } from '@/shared/units/figures'
import { formatLength } from '@/shared/units/lengths'

const props = defineProps<{ document: DesignData; piece: string; curve: Schemas['LapCurve']; unit: Unit; colour: string }>()
const emit = defineEmits<{ close: []; take: [join: Schemas['JoinView']] }>()
const open = ref(true)
/** Areas are typed in the design's unit, and kept in mm². */
const PER_UNIT = props.unit === 'in' ? 645.16 : 1
const loss = ref(Math.max(40, Math.round(props.curve.loss * 1.5)) / PER_UNIT)
const mostLap = ref(Math.max(20, Math.ceil(props.curve.lap * 2)))
const mostTurn = ref(180)
const spans = ref(0)
const joins = ref<Schemas['JoinView'][]>([])
const busy = ref(false)

async function find() {
  busy.value = true
  try {
    const body = {
      document: props.document,
      piece: props.piece,
      loss: Math.max(loss.value * PER_UNIT, 0.1),
      least_lap: 0.1,
      most_lap: mostLap.value,
      most_turn: mostTurn.value,
      spans: spans.value,
    }
    joins.value = [...(await answer(client.POST('/api/joins', { body })))]
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}
onMounted(find)
watch([loss, mostLap, mostTurn, spans], find)
const say = (mm: number) => formatLength(mm, props.unit)
const turned = (degrees: number) => (degrees ? `turned ${Math.abs(degrees)}° ${degrees > 0 ? 'clockwise' : 'the other way'}` : 'not turned')
</script>

<template>
  <ElDialog v-model="open" title="Find the best join" width="940px" align-center @closed="emit('close')">
    <div class="wish">
      <span>Each half may lose</span>
      <NumberInput :model-value="loss" :whole="false" :suffix="unit === 'in' ? 'in²' : 'mm²'" label="Loss accepted" :min="0.0002" :max="100000" @update:model-value="(v) => (loss = v)" />
      <span>Lap at most</span>
      <LengthInput :model-value="mostLap" :unit="unit" label="Lap at most" :min="0.1" :max="1000" @update:model-value="(v) => (mostLap = v)" />
      <span>Turned by at most</span>
      <NumberInput :model-value="mostTurn" :whole="false" suffix="°" label="Turn at most" :min="0" :max="180" @update:model-value="(v) => (mostTurn = v)" />
      <span>Spans</span>
      <ElSelect v-model="spans" aria-label="Spans" class="spans">
        <ElOption :value="0" label="any number" />
        <ElOption v-for="n in 6" :key="n" :value="n" :label="n === 1 ? 'one' : String(n)" />
      </ElSelect>
      <span class="soft now">Now: lap {{ say(curve.lap) }}, hinge {{ say(curve.hinge) }}, {{ formatFigure(curve.loss, 'mm2', unit) }} lost.</span>
    </div>
    <div class="joins" :aria-busy="busy">
      <button v-for="(j, i) in joins" :key="i" class="plain-button join" @click="emit('take', j)">
        <span class="picture"><PathPicture v-if="j.picture" :path="j.picture.path" :box="j.picture.box" :folds="j.picture.folds" :perforated="j.picture.perforated" :drawn="j.picture.drawn" :colour="colour" /></span>
        <strong class="figure">hinge {{ say(j.hinge) }}</strong>
        <span>{{ j.spans === 1 ? 'one span' : `${j.spans} spans` }}, lap {{ say(j.lap) }}</span>
        <span class="soft">{{ turned(j.turn_deg) }}, {{ formatFigure(j.loss, 'mm2', unit) }} lost</span>
        <span class="soft">closed {{ formatMeasures(j.closed, 'mm', unit) }}<template v-if="j.room !== null">, <span :class="{ bad: j.room < 0 }">room {{ say(j.room) }}</span></template></span>
        <span class="soft" :class="{ bad: j.stands !== null && j.stands < 0 }">{{ j.stands === null ? 'does not stand' : j.stands < 0 ? 'falls over' : `stands safe by ${say(j.stands)}` }}</span>
        <span class="take">Take it</span>
      </button>
      <p v-if="!joins.length && !busy" class="soft">Nothing joins the halves so in a span of {{ say(6) }} or more.</p>
    </div>
    <p class="soft">The longest hinge first. Spans under {{ say(6) }} tear and are not counted.</p>
  </ElDialog>
</template>

<style scoped>
.wish {
  display: grid;
  grid-template-columns: auto 118px auto 118px auto 92px auto 1fr;
  gap: 8px 12px;
  align-items: center;
}
.now {
  grid-column: 1 / -1;
}
.bad {
  color: var(--error);
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
