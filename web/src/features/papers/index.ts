export { default as PaperChooser } from './PaperChooser.vue'
export { default as PaperSwatch } from './PaperSwatch.vue'
export { default as PaperValues } from './PaperValues.vue'
