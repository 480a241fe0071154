export default {
  stories: ['../src/*.stories.jsx'],
  framework: '@storybook/react-vite',
  core: { disableTelemetry: true },
}
