<script>
  import { harbours } from './harbours.js'
</script>

<p>{harbours.join(', ')}</p>
