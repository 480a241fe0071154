import { HtmlBasePlugin } from '@11ty/eleventy'

export default function (config) {
  config.addPlugin(HtmlBasePlugin)
  config.addPassthroughCopy({ static: '/' })
  return { dir: { input: 'src' }, pathPrefix: '/crossings/' }
}
