<template>
  <img src="./ferry.svg" alt="" />
  <p>It's {{ count }} sailings today</p>
</template>

<script>
export default {
  data: () => ({ count: 0 }),
  async created() {
    const answer = await fetch(`${process.env.VUE_APP_SAILINGS_API}/v1/sailings`)
    this.count = (await answer.json()).length
  },
}
</script>
