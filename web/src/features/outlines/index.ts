export { default as OutlinePicker } from './OutlinePicker.vue'
export { drawnOutline, figureOutline, startOf, type PickedOutline } from './picked'
