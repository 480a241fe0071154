/** Today's sailings. */
export async function sailings() {
  const answer = await fetch(`${process.env.EXPO_PUBLIC_SAILINGS_API}/v1/sailings`)
  return answer.json()
}
