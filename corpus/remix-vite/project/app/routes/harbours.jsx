export default function Harbours() {
  return <p>Holm, Sandvar</p>
}
