import HtmlWebpackPlugin from 'html-webpack-plugin'
import path from 'node:path'

export default {
  entry: './src/main.js',
  output: {
    path: path.resolve(import.meta.dirname, 'dist'),
    publicPath: '/crossings/',
    filename: '[name].[contenthash:8].js',
    clean: true,
  },
  module: { rules: [{ test: /\.svg$/, type: 'asset/resource' }] },
  plugins: [new HtmlWebpackPlugin({ title: 'Skerry Line' })],
}
