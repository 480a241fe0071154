<script>
  import { sailings } from './api.js'
  import ferry from './ferry.svg'

  const harbours = import('./Harbours.svelte')
</script>

<img src={ferry} alt="" />
{#await sailings() then list}<p>{list.length} sailings, it's a calm day</p>{/await}
{#await harbours then { default: Harbours }}<Harbours />{/await}

<style>
  p {
    background: url('./ferry.svg');
  }
</style>
