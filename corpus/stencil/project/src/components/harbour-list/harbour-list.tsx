import { Component, h } from '@stencil/core'

@Component({ tag: 'harbour-list', shadow: true })
export class HarbourList {
  render() {
    return <p>Skerry Sound, Gull Point</p>
  }
}
