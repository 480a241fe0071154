const EmberApp = require('ember-cli/lib/broccoli/ember-app')

module.exports = (defaults) => new EmberApp(defaults, {}).toTree()
