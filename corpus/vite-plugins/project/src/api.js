export const sailings = () => fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`).then((answer) => answer.json())
