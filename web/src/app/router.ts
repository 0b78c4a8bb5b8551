import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import { useSession } from '@/features/session/session'
import { PAGES } from './pages'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    ...PAGES.map(({ name, path, load }) => ({
      name,
      path,
      component: load,
      props: path.includes(':id') ? (to: RouteLocation) => ({ id: Number(to.params.id) }) : false,
    })),
    { path: '/:rest(.*)*', name: 'missing', component: () => import('./MissingPage.vue') },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  await session.load()
  if (!session.name && to.name !== 'sign-in') return { name: 'sign-in', query: { to: to.fullPath } }
  if (session.name && to.name === 'sign-in') return { name: 'designs' }
  return true
})
