<script setup lang="ts">
/** The design on other card sizes, side by side, before one is taken or a family is made of them. */
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { answer, client } from '@/shared/api/client'
import type { CardSize, DesignData, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { tell, tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import { called, t } from '@/shared/words'
import { useFamily } from '@/features/family'
import ChangeList from './ChangeList.vue'
import { useRefold, type OtherCard } from './useRefold'

const props = defineProps<{ document: DesignData; unit: Unit }>()
const emit = defineEmits<{ close: []; take: [size: CardSize, along: boolean] }>()
const catalogue = useCatalogue()
const shelf = useShelf()
const { refold, busy } = useRefold()
const family = useFamily()
const open = ref(true)
const wanted = ref<string[]>([])
const found = ref<{ size: CardSize; card: OtherCard }[]>([])
const here = ref<OtherCard | null>(null)
const making = ref(false)
const linked = ref(true)
const along = ref(false)
const id = Number(useRoute().params.id)

const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes].filter((s) => s.name !== props.document.card.size.name))
onMounted(async () => {
  here.value = (await refold(props.document, [props.document.card]))?.[0] ?? null
  // first the one that is nearest in size
  const area = (s: CardSize) => s.width * s.height
  const own = area(props.document.card.size)
  const near = [...sizes.value].sort((a, b) => Math.abs(area(a) - own) - Math.abs(area(b) - own))[0]
  if (near) wanted.value = [near.name]
})
watch([wanted, along], async ([names]) => {
  const chosen = names.map((n) => sizes.value.find((s) => s.name === n)).filter((s): s is CardSize => Boolean(s))
  if (!chosen.length) return void (found.value = [])
  const cards = await refold(props.document, chosen.map((size) => ({ ...props.document.card, size })), along.value)
  if (cards) found.value = chosen.map((size, i) => ({ size, card: cards[i]! }))
})
const shown = computed(() => [
  ...(here.value ? [{ name: t('{name}, as it is', { name: called(props.document.card.size.name) }), card: here.value, size: null }] : []),
  ...found.value.map((f) => ({ name: called(f.size.name), card: f.card, size: f.size })),
])

const counted = (card: OtherCard) =>
  [card.errors ? t('{errors} to mend', { errors: card.errors }) : '', card.warnings ? t('{warnings} to look at', { warnings: card.warnings }) : ''].filter(Boolean).join(', ')

async function makeFamily() {
  making.value = true
  try {
    const others: number[] = []
    for (const { size, card } of found.value) {
      const document = { ...card.document, name: `${props.document.name}, ${size.name}`.slice(0, 120) }
      others.push((await answer(client.POST('/api/designs', { body: { document } }))).id)
    }
    if (linked.value) await family.link(id, others)
    const made = found.value.length === 1 ? t('One design') : t('{n} designs', { n: found.value.length })
    tell(linked.value ? t('{made} made and linked: what is changed in one is offered to the others.', { made }) : t('{made} made, among the designs.', { made }))
    emit('close')
  } catch (error) {
    tellError(error)
  } finally {
    making.value = false
  }
}
</script>

<template>
  <ElDialog v-model="open" :title="$t('The same design on other card sizes')" width="1040px" align-center @closed="emit('close')">
    <div class="choose">
      <label for="other-sizes">{{ $t('Show it on') }}</label>
      <ElSelect id="other-sizes" v-model="wanted" multiple :multiple-limit="6" collapse-tags :max-collapse-tags="6" :aria-label="$t('Other sizes')">
        <ElOption v-for="s in sizes" :key="s.name" :value="s.name" :label="called(s.name)" />
      </ElSelect>
      <ElCheckbox v-model="along" :label="$t('Take figures along')" :title="$t('Figures with a size of their own are made larger or smaller with the card')" />
    </div>
    <div class="cards" :aria-busy="busy">
      <article v-for="c in shown" :key="c.name" :aria-label="c.name">
        <h3>{{ c.name }}</h3>
        <div class="pictures">
          <span class="flat"><PathPicture v-if="c.card.flat" :path="c.card.flat.path" :box="c.card.flat.box" :folds="c.card.flat.folds" :perforated="c.card.flat.perforated" :drawn="c.card.flat.drawn" /></span>
          <span class="shut"><FoldedPicture v-if="c.card.folded" :picture="c.card.folded" /></span>
        </div>
        <p class="figure">{{ $t('closed {closed}', { closed: formatMeasures(c.card.closed, 'mm', unit) }) }}</p>
        <p class="figure soft">{{ $t('open {open}', { open: formatMeasures(c.card.open, 'mm', unit) }) }}</p>
        <ChangeList v-if="c.size" :found="c.card" />
        <p v-if="c.card.errors + c.card.warnings" class="counts">{{ counted(c.card) }}</p>
        <ul class="findings">
          <li v-for="f in c.card.findings" :key="f">{{ f }}</li>
          <li v-if="!c.card.findings.length" class="good">{{ $t('nothing to mend') }}</li>
        </ul>
        <ElButton v-if="c.size" size="small" @click="emit('take', c.size, along)">{{ $t('Take this size') }}</ElButton>
      </article>
    </div>
    <template #footer>
      <ElCheckbox v-model="linked" class="linked" :label="$t('Keep them linked: what is changed in one is offered to the others')" />
      <ElButton @click="open = false">{{ $t('Leave it as it is') }}</ElButton>
      <ElButton type="primary" :disabled="!found.length" :loading="making" @click="makeFamily">
        {{ $t('Make it a design of its own | Make these {n} designs of their own', found.length) }}
      </ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.choose {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 12px;
  align-items: center;
}
.cards {
  display: flex;
  gap: 16px;
  margin-top: 14px;
  overflow-x: auto;
  max-height: 60vh;
}
article {
  flex: 1 0 230px;
  max-width: 340px;
  padding: 10px 12px;
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-text);
}
article:first-child {
  background: var(--chrome);
}
h3 {
  font-size: var(--size-text);
}
.pictures {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 8px;
  height: 130px;
  margin: 8px 0;
}
.pictures span {
  min-height: 0;
}
.linked {
  float: left;
}
.findings {
  margin: 6px 0;
  padding-left: 16px;
  font-size: var(--size-small);
  color: var(--warning);
}
.findings .good {
  color: var(--good);
}
</style>
