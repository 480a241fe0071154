/// <reference types="vite/client" />
interface ImportMetaEnv {
  readonly VITE_SAILINGS_API: string
  readonly VITE_CHART_KEY: string
}
