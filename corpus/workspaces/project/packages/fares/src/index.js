export const fares = () => fetch(`${import.meta.env.VITE_FARES_API}/v1/fares`).then((answer) => answer.json())
