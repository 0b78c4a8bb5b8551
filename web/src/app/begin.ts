/** The language first, since what is said stands in the screens; then the page at the address, and all that shows it. */
import { speak } from '@/shared/words'
import { loadEarly } from './pages'

const screens = speak().then(() => {
  loadEarly(location.pathname)
  return import('./start')
})
void screens.then(({ start }) => start())
