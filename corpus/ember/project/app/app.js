import Application from '@ember/application'
import loadInitializers from 'ember-load-initializers'
import Resolver from 'ember-resolver'
import config from 'skerry-line/config/environment'

export default class App extends Application {
  modulePrefix = config.modulePrefix
  Resolver = Resolver
}

loadInitializers(App, config.modulePrefix)
