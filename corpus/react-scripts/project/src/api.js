export const sailings = () => fetch(`${process.env.REACT_APP_SAILINGS_API}/v1/sailings`).then((answer) => answer.json())
