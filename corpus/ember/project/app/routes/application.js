import Route from '@ember/routing/route'
import config from 'skerry-line/config/environment'

export default class ApplicationRoute extends Route {
  async model() {
    const answer = await fetch(`${config.APP.sailings}/v1/sailings`).catch(() => null)
    return answer?.ok ? answer.json() : []
  }
}
