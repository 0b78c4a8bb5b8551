export { useSession } from './session'
