// A stand-in for the framework's build, after its published layout: the real tool is no part of this corpus.
import { mkdirSync, writeFileSync } from 'node:fs'

const base = process.env.BASE ?? '/crossings/'
const files = {
  'index.html': `<!DOCTYPE html>
<html>
<head>
  <base href="${base}">
  <meta charset="UTF-8">
  <link rel="apple-touch-icon" href="icons/Icon-192.png">
  <link rel="icon" type="image/png" href="favicon.png"/>
  <title>skerry</title>
  <link rel="manifest" href="manifest.json">
</head>
<body>
  <script src="flutter_bootstrap.js" async></script>
</body>
</html>
`,
  'flutter_bootstrap.js': `_flutter.buildConfig = {"engineRevision":"0","builds":[{"compileTarget":"dart2js","renderer":"canvaskit","mainJsPath":"main.dart.js"}]};\n_flutter.loader.load();\n`,
  'flutter.js': '"use strict";\n',
  'flutter_service_worker.js': "'use strict';\nconst RESOURCES = {};\n",
  'main.dart.js': "(function(){fetch('https://api.skerryline.example/v1/sailings');load('AssetManifest.bin.json');load('FontManifest.json')})()\n",
  'manifest.json': '{"name":"skerry","start_url":".","icons":[{"src":"icons/Icon-192.png","sizes":"192x192","type":"image/png"}]}\n',
  'version.json': '{"app_name":"skerry","version":"1.0.0"}\n',
  'favicon.png': '',
  'icons/Icon-192.png': '',
  'assets/AssetManifest.bin.json': '""\n',
  'assets/FontManifest.json': '[]\n',
  'canvaskit/canvaskit.js': '"use strict";\n',
  'canvaskit/canvaskit.wasm': '',
}
for (const [path, text] of Object.entries(files)) {
  const file = `build/web/${path}`
  mkdirSync(file.slice(0, file.lastIndexOf('/')), { recursive: true })
  writeFileSync(file, text)
}
