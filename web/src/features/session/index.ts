export { default as AccountDialog } from './AccountDialog.vue'
export { useSession } from './session'
