module.exports = {
  title: 'Skerry Line',
  url: 'https://skerryline.example',
  baseUrl: '/crossings/',
  onBrokenLinks: 'warn',
  presets: [['classic', { docs: false, blog: false, theme: { customCss: './src/main.css' } }]],
}
