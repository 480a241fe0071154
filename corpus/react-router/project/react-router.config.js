export default {
  ssr: false,
  basename: '/crossings/',
}
