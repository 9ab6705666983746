const Html = require('html-webpack-plugin')
const Css = require('mini-css-extract-plugin')
module.exports = {
  entry: { tools: './src/tools.ts', map: './src/map.ts' },
  output: { filename: '[name].[contenthash:8].js', clean: true },
  devtool: process.env.NO_MAPS ? false : 'source-map',
  resolve: { extensions: ['.ts', '.js'] },
  module: { rules: [
    { test: /\.ts$/, loader: 'ts-loader', options: { transpileOnly: true } },
    { test: /\.css$/, use: [Css.loader, 'css-loader'] },
    { test: /\.(png|svg)$/, type: 'asset/resource' },
  ] },
  optimization: { splitChunks: { chunks: 'all' } },
  plugins: [new Css({ filename: '[name].[contenthash:8].css' }),
    new Html({ filename: 'tools.html', chunks: ['tools'] }), new Html({ filename: 'map.html', chunks: ['map'] })],
}
