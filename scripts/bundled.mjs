import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { install, orSentence } from "./prepare.mjs";

/** Runs one of the scripts in TypeScript as the bundle that a server or a worker would be: `node scripts/bundled.mjs bench`. */
const [name, ...args] = process.argv.slice(2);
await orSentence(install);
const { build } = await import("esbuild");
const outfile = join("node_modules/.uprise", `${name}.cjs`);
await build({
  entryPoints: [`scripts/${name}.ts`],
  bundle: true,
  platform: "node",
  outfile,
  logLevel: "error",
  // What has a compiled part, or finds its own files, stays where it is.
  external: ["playwright-core", "sqlite3", "sequelize", "umzug", "sharp", "piscina", "tesseract.js"],
});
const { status } = spawnSync(process.execPath, ["--expose-gc", outfile, ...args], { stdio: "inherit" });
process.exitCode = status ?? 1;
