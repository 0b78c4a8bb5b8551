import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from '@/features/session/session'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', name: 'designs', component: () => import('@/features/designs/DesignsPage.vue') },
    { path: '/new', name: 'new', component: () => import('@/features/newcard/NewCardPage.vue') },
    { path: '/shelf', name: 'shelf', component: () => import('@/features/shelf/ShelfPage.vue') },
    {
      path: '/designs/:id(\\d+)',
      name: 'bench',
      component: () => import('@/features/bench/BenchPage.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/jobs', name: 'jobs', component: () => import('@/features/sheets/JobsPage.vue') },
    {
      path: '/jobs/:id(\\d+)',
      name: 'job',
      component: () => import('@/features/sheets/JobPage.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/cutter', name: 'cutter', component: () => import('@/features/sheets/CutterPage.vue') },
    { path: '/sign-in', name: 'sign-in', component: () => import('@/features/session/SignInPage.vue') },
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
