import { $, component$, useSignal, useVisibleTask$ } from '@builder.io/qwik'

export default component$(() => {
  const count = useSignal(0)
  useVisibleTask$(async () => {
    const answer = await fetch(`${import.meta.env.PUBLIC_SAILINGS_API}/v1/sailings`)
    count.value = (await answer.json()).length
  })
  const clear = $(() => {
    count.value = 0
  })
  return (
    <main>
      <p>{count.value} sailings</p>
      <button type="button" onClick$={clear}>
        Clear
      </button>
    </main>
  )
})
