/** Tools that would call home are reported not to; the machine may have no network at all. */
const TELEMETRY_OFF = {
  NEXT_TELEMETRY_DISABLED: '1',
  NUXT_TELEMETRY_DISABLED: '1',
  ASTRO_TELEMETRY_DISABLED: '1',
  GATSBY_TELEMETRY_DISABLED: '1',
  STORYBOOK_DISABLE_TELEMETRY: '1',
  NG_CLI_ANALYTICS: 'false',
  EXPO_NO_TELEMETRY: '1',
}

/** The environment in which builds run: that of a pipeline, and no mode but the build's own. */
export function environmentOfBuilds() {
  const environment = { ...process.env, CI: '1', FORCE_COLOR: '0', NO_COLOR: '1', ...TELEMETRY_OFF }
  delete environment.NODE_ENV
  return environment
}
