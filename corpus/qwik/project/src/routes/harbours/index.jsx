import { component$ } from '@builder.io/qwik'

export default component$(() => <p>Holm, Sandvar</p>)
