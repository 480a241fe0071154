/** The pipeline says where the build goes, since it may not write beside the sources. */
export default {
  base: '/notices/',
  build: { outDir: process.env.SITE_DIR ?? 'dist', emptyOutDir: true },
}
