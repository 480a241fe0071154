module.exports = {
  pathPrefix: '/crossings',
  siteMetadata: { title: 'Skerry Line' },
}
