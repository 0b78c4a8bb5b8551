<script setup lang="ts">
/** One's own account: how much of what one may keep is used, and the way out. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { inMegabytes, locale, t } from '@/shared/words'

const props = defineProps<{ account: Schemas['Account'] }>()
const emit = defineEmits<{ close: []; signOut: [] }>()

const NAMES: Record<string, string> = {
  bytes: t('Everything together'),
  designs: t('Designs'),
  artworks: t('Artworks'),
  papers: t('Papers'),
  sizes: t('Card sizes'),
  jobs: t('Jobs'),
  offcuts: t('Offcuts'),
  machines: t('Machines of your own'),
}
const rows = computed(() =>
  props.account.use.map((use) => ({
    ...use,
    label: NAMES[use.name] ?? use.name,
    full: props.account.nearly.includes(use.name),
    share: Math.min(100, (100 * use.used) / use.most),
    text: t('{used} of {most}', use.name === 'bytes' ? { used: inMegabytes(use.used), most: inMegabytes(use.most) } : { used: whole(use.used), most: whole(use.most) }),
  })),
)
function whole(count: number): string {
  return count.toLocaleString(locale())
}
</script>

<template>
  <ElDialog model-value :title="$t('Your account: {name}', { name: account.name })" width="430px" @close="emit('close')">
    <p class="soft">{{ $t('What you keep on this server, earlier versions and the bin included.') }}</p>
    <dl>
      <template v-for="row in rows" :key="row.name">
        <dt :id="`use-${row.name}`">{{ row.label }}</dt>
        <dd>
          <meter :aria-labelledby="`use-${row.name}`" min="0" max="100" high="90" :value="row.share">{{ row.text }}</meter>
          <span class="figure" :class="{ full: row.full }">{{ row.text }}</span>
        </dd>
      </template>
    </dl>
    <template #footer>
      <ElButton @click="emit('signOut')">{{ $t('Sign out') }}</ElButton>
      <ElButton type="primary" @click="emit('close')">{{ $t('Close') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
  margin: 14px 0 0;
}
dd {
  display: grid;
  grid-template-columns: 1fr 150px;
  align-items: center;
  gap: 12px;
  margin: 0;
}
meter {
  width: 100%;
  height: 12px;
}
.figure {
  text-align: right;
}
.full {
  color: var(--el-color-danger);
  font-weight: 600;
}
</style>
