<script>
  import { base } from '$app/paths'
  import { onMount } from 'svelte'
  import ferry from '$lib/ferry.svg'

  let count = $state(0)
  onMount(async () => {
    const answer = await fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)
    count = (await answer.json()).length
  })
</script>

<img src={ferry} alt="" />
<p>It's {count} sailings today</p>
<a href="{base}/harbours">Harbours</a>
