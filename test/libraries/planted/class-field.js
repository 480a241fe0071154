export class Sailings {
  base = 'http://localhost:8806'

  list(day) {
    return fetch(`${this.base}/v1/sailings?day=${day}`)
  }
}
