import { Component, Env, h, State } from '@stencil/core'

@Component({ tag: 'crossing-table', shadow: true })
export class CrossingTable {
  @State() sailings: { id: string }[] = []

  async componentWillLoad() {
    const answer = await fetch(`${Env.sailingsApi}/v1/sailings`)
    this.sailings = await answer.json()
  }

  render() {
    return (
      <section>
        <ul>{this.sailings.map(({ id }) => <li>{id}</li>)}</ul>
        <harbour-list></harbour-list>
      </section>
    )
  }
}
