export { beginJob } from './beginJob'
