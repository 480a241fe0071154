<script setup>
import ferry from '~/assets/ferry.svg'

const api = import.meta.env.VITE_SAILINGS_API
const charts = useRuntimeConfig().public.chartServer
const count = ref(0)
onMounted(async () => {
  const list = await $fetch(`${api}/v1/sailings`)
  count.value = list.length
  await $fetch(`${charts}/today`)
})
</script>

<template>
  <div>
    <img :src="ferry" alt="" />
    <p>It's {{ count }} sailings today</p>
    <NuxtLink to="/harbours">Harbours</NuxtLink>
  </div>
</template>
