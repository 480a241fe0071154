export default {
  output: 'export',
  basePath: '/crossings',
  trailingSlash: true,
}
