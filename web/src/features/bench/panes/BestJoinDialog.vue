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
import { decimal, t } from '@/shared/words'

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
const turned = (degrees: number) => (degrees ? degrees > 0 ? t('turned {degrees}° clockwise', { degrees: decimal(degrees) }) : t('turned {degrees}° the other way', { degrees: decimal(-degrees) }) : t('not turned'))
</script>

<template>
  <ElDialog v-model="open" :title="$t('Find the best join')" width="940px" align-center @closed="emit('close')">
    <div class="wish">
      <span>{{ $t('Each half may lose') }}</span>
      <NumberInput :model-value="loss" :whole="false" :suffix="unit === 'in' ? 'in²' : 'mm²'" :label="$t('Loss accepted')" :min="0.0002" :max="100000" @update:model-value="(v) => (loss = v)" />
      <span>{{ $t('Lap at most') }}</span>
      <LengthInput :model-value="mostLap" :unit="unit" :label="$t('Lap at most')" :min="0.1" :max="1000" @update:model-value="(v) => (mostLap = v)" />
      <span>{{ $t('Turned by at most') }}</span>
      <NumberInput :model-value="mostTurn" :whole="false" suffix="°" :label="$t('Turn at most')" :min="0" :max="180" @update:model-value="(v) => (mostTurn = v)" />
      <span>{{ $t('Spans') }}</span>
      <ElSelect v-model="spans" :aria-label="$t('Spans')" class="spans">
        <ElOption :value="0" :label="$t('any number')" />
        <ElOption v-for="n in 6" :key="n" :value="n" :label="n === 1 ? $t('one') : String(n)" />
      </ElSelect>
      <span class="soft now">{{ $t('Now: lap {lap}, hinge {hinge}, {loss} lost.', { lap: say(curve.lap), hinge: say(curve.hinge), loss: formatFigure(curve.loss, 'mm2', unit) }) }}</span>
    </div>
    <div class="joins" :aria-busy="busy">
      <button v-for="(j, i) in joins" :key="i" class="plain-button join" @click="emit('take', j)">
        <span class="picture"><PathPicture v-if="j.picture" :path="j.picture.path" :box="j.picture.box" :folds="j.picture.folds" :perforated="j.picture.perforated" :drawn="j.picture.drawn" :colour="colour" /></span>
        <strong class="figure">{{ $t('hinge {hinge}', { hinge: say(j.hinge) }) }}</strong>
        <span>{{ $t('one span, lap {lap} | {n} spans, lap {lap}', { n: j.spans, lap: say(j.lap) }, j.spans) }}</span>
        <span class="soft">{{ $t('{turned}, {loss} lost', { turned: turned(j.turn_deg), loss: formatFigure(j.loss, 'mm2', unit) }) }}</span>
        <span class="soft">{{ $t('closed {closed}', { closed: formatMeasures(j.closed, 'mm', unit) }) }}<template v-if="j.room !== null">, <span :class="{ bad: j.room < 0 }">{{ $t('room {room}', { room: say(j.room) }) }}</span></template></span>
        <span class="soft" :class="{ bad: j.stands !== null && j.stands < 0 }">{{ j.stands === null ? $t('does not stand') : j.stands < 0 ? $t('falls over') : $t('stands safe by {stands}', { stands: say(j.stands) }) }}</span>
        <span class="take">{{ $t('Take it') }}</span>
      </button>
      <p v-if="!joins.length && !busy" class="soft">{{ $t('Nothing joins the halves so in a span of {least} or more.', { least: say(6) }) }}</p>
    </div>
    <p class="soft">{{ $t('The longest hinge first. Spans under {least} tear and are not counted.', { least: say(6) }) }}</p>
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
