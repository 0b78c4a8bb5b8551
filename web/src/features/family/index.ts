export { default as FamilyMark } from './FamilyMark.vue'
export { useFamily } from './useFamily'
