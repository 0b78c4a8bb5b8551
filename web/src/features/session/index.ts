export { default as AccountDialog } from './AccountDialog.vue'
export { leaveDrafts } from './leaveDrafts'
export { useSession } from './session'
