import EmberRouter from '@ember/routing/router'
import config from 'skerry-line/config/environment'

export default class Router extends EmberRouter {
  location = config.locationType
  rootURL = config.rootURL
}

Router.map(function () {
  this.route('harbours')
  this.route('sailing', { path: '/sailings/:sailing_id' })
})
