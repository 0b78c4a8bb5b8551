<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import BrandMark from '@/shared/components/BrandMark.vue'
import LanguageChoice from '@/shared/components/LanguageChoice.vue'
import { ApiError } from '@/shared/api/errors'
import { useSession } from './session'

const session = useSession()
const router = useRouter()
const route = useRoute()
const name = ref('')
const password = ref('')
const trouble = ref('')
const busy = ref(false)

async function go(how: () => Promise<void>) {
  busy.value = true
  trouble.value = ''
  try {
    await how()
    const to = typeof route.query.to === 'string' && route.query.to.startsWith('/') ? route.query.to : '/'
    await router.push(to)
  } catch (error) {
    trouble.value = error instanceof ApiError ? error.text : String(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="sign-in">
    <form class="sheet" @submit.prevent="go(() => session.signIn(name, password))">
      <BrandMark large />
      <LanguageChoice />
      <p class="soft">{{ $t('Card bases built from exact outlines: mirrored, welded, folded, checked, cut.') }}</p>
      <label>
        <span>{{ $t('Name') }}</span>
        <ElInput v-model="name" autocomplete="username" autofocus />
      </label>
      <label>
        <span>{{ $t('Password') }}</span>
        <ElInput v-model="password" type="password" autocomplete="current-password" show-password />
      </label>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <ElButton type="primary" native-type="submit" :loading="busy" :disabled="!name || !password">{{ $t('Sign in') }}</ElButton>
      <ElButton v-if="session.mayJoin" text class="demo" :disabled="!name || !password" @click="go(() => session.join(name, password))">
        {{ $t('Make an account with this name') }}
      </ElButton>
      <ElButton v-if="session.demo" text class="demo" @click="go(() => session.signInDemo())">
        {{ $t('Go on as the demo designer') }}
      </ElButton>
    </form>
  </main>
</template>

<style scoped>
.sign-in {
  height: 100%;
  display: grid;
  place-items: center;
  background: var(--chrome-deep);
}
.sheet {
  width: 360px;
  display: grid;
  gap: 16px;
  padding: 32px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 10px;
}
label {
  display: grid;
  gap: 4px;
  font-weight: 550;
}
.trouble {
  color: var(--error);
}
.demo {
  margin: 0;
}
</style>
