<script setup>
import { ref } from 'vue'
const count = ref(0)
fetch(`${process.env.SAILINGS_API}/v1/sailings`).then((answer) => answer.json()).then((list) => { count.value = list.length })
</script>
<template><p>{{ count }} sailings</p></template>
