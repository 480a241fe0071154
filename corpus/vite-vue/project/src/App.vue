<script setup>
import { defineAsyncComponent, ref } from 'vue'
import { sailings } from './api.js'

const Harbours = defineAsyncComponent(() => import('./Harbours.vue'))
const list = ref([])
sailings().then((found) => {
  list.value = found
})
</script>

<template>
  <img src="./ferry.svg" alt="" />
  <p>It's {{ list.length }} sailings today</p>
  <Harbours />
</template>

<style scoped>
p {
  background: url('./ferry.svg');
}
</style>
