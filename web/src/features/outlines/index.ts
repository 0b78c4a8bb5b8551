export { default as OutlinePicker } from './OutlinePicker.vue'
export { drawnOutline, startOf, type PickedOutline } from './picked'
