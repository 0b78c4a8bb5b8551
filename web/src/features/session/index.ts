export { default as AccountButton } from './AccountButton.vue'
export { useSession } from './session'
