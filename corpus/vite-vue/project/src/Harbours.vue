<script setup>
import { harbours } from './harbours.js'
</script>

<template>
  <p>{{ harbours.join(', ') }}</p>
</template>
