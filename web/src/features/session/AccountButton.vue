<script setup lang="ts">
/** Who is signed in; opens what they keep here, and signing out. */
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ApiError } from '@/shared/api/errors'
import { tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import AccountDialog from './AccountDialog.vue'
import { leaveDrafts } from './leaveDrafts'
import { useSession } from './session'

const session = useSession()
const router = useRouter()
const shown = ref(false)
const name = computed(() => (session.demo && session.name === 'demo' ? t('Signed in as the demo designer') : session.name))

async function show() {
  try {
    await session.loadAccount()
    shown.value = true
  } catch (error) {
    tellError(error)
  }
}

async function signOut() {
  shown.value = false
  if (!(await leaveDrafts(session.owner))) return
  await session.signOut()
  await router.push({ name: 'sign-in' })
}

/** When all else is there; if that fails, it is asked again on the next page. */
async function look() {
  try {
    await session.loadAccount()
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
  }
}
onMounted(() => ('requestIdleCallback' in window ? requestIdleCallback(() => void look(), { timeout: 400 }) : setTimeout(() => void look(), 60)))
defineExpose({ show })
</script>

<template>
  <ElButton text class="who" :title="$t('What you keep here, and signing out')" @click="show">{{ name }}</ElButton>
  <AccountDialog v-if="shown && session.account" :account="session.account" @close="shown = false" @sign-out="signOut" />
</template>

<style scoped>
.who {
  min-width: 0;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
