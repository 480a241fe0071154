module.exports = function (environment) {
  const ENV = {
    modulePrefix: 'skerry-line',
    environment,
    rootURL: '/',
    locationType: 'history',
    EmberENV: {},
    APP: { sailings: 'http://localhost:8787' },
  }

  if (environment === 'production') {
    ENV.rootURL = '/crossings/'
    ENV.APP.sailings = 'https://api.skerryline.example'
  }

  return ENV
}
