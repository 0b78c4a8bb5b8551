export { default as PaperChooser } from './PaperChooser.vue'
