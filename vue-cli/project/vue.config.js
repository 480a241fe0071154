module.exports = {
  publicPath: process.env.NODE_ENV === 'production' ? '/crossings/' : '/',
  devServer: { proxy: { '/api': { target: 'http://localhost:8787' } } },
}
