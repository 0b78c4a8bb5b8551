<script setup lang="ts">
/** Over all screens: the help and the course; neither is loaded before it is wanted. */
import { defineAsyncComponent, onBeforeUnmount, onMounted, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useCourse } from './course'
import { isTyping, useHelp } from './useHelp'

const HelpDialog = defineAsyncComponent(() => import('./HelpDialog.vue'))
const CourseCard = defineAsyncComponent(() => import('./CourseCard.vue'))
const { open } = useHelp()
const course = useCourse()
const route = useRoute()
watch(
  () => route.name,
  (name) => {
    if (name === 'new') course.reach('new')
    else if (name === 'bench') course.reach('built')
  },
)
function key(event: KeyboardEvent) {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || isTyping(event.target)) return
  event.preventDefault()
  open.value = !open.value
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <section v-if="open"><HelpDialog @close="open = false" /></section>
  <CourseCard v-if="course.at.value !== null && route.name !== 'sign-in'" />
</template>
