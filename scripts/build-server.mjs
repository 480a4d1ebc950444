import { build } from "esbuild";

/** Bundles the server's own sources; packages stay in node_modules, where sqlite3 has its compiled part. */
await build({
  entryPoints: { main: "apps/server/src/main.ts", compute: "apps/server/src/compute/worker.ts" },
  outdir: "apps/server/dist",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  platform: "node",
  target: "node20",
  format: "esm",
  packages: "external",
  alias: { "@uprise/core": "./packages/core/src/index.ts", "@uprise/contract": "./packages/contract/src/index.ts" },
  sourcemap: true,
  logLevel: "warning",
});
