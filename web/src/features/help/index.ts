export { useCourse } from './course'
export { default as HelpButton } from './HelpButton.vue'
export { default as HelpLayer } from './HelpLayer.vue'
