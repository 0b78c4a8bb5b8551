/** The pages by their addresses; none is loaded before it is wanted. */
import type { Component } from 'vue'

type Loaded = Promise<{ default: Component }>
interface Page {
  name: string
  path: string
  load: () => Loaded
}

export const PAGES: readonly Page[] = [
  { name: 'designs', path: '/', load: () => import('@/features/designs/DesignsPage.vue') },
  { name: 'new', path: '/new', load: () => import('@/features/newcard/NewCardPage.vue') },
  { name: 'shelf', path: '/shelf', load: () => import('@/features/shelf/ShelfPage.vue') },
  { name: 'bench', path: '/designs/:id(\\d+)', load: () => import('@/features/bench/BenchPage.vue') },
  { name: 'jobs', path: '/jobs', load: () => import('@/features/sheets/JobsPage.vue') },
  { name: 'job', path: '/jobs/:id(\\d+)', load: () => import('@/features/sheets/JobPage.vue') },
  { name: 'cutter', path: '/cutter', load: () => import('@/features/sheets/CutterPage.vue') },
  { name: 'sign-in', path: '/sign-in', load: () => import('@/features/session/SignInPage.vue') },
]

/** Begins to load the page at the address, beside all that shows it. */
export function loadEarly(address: string) {
  const page = PAGES.find(({ path }) => new RegExp(`^${path.replace(':id(\\d+)', '\\d+')}$`).test(address))
  // what cannot be loaded is told by the router
  page?.load().catch(() => {})
}
