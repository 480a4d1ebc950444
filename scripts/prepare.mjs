import { createHash } from "node:crypto";
import { spawnSync } from "node:child_process";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";

const STAMPS = "node_modules/.uprise";

const run = (command, args, env = {}) => {
  const result = spawnSync(command, args, { stdio: "inherit", env: { ...process.env, ...env } });
  if (result.status !== 0) throw new Error(`${command} ${args.join(" ")} ended with ${result.status ?? result.signal}`);
};

const filesUnder = (path) =>
  !existsSync(path)
    ? []
    : statSync(path).isFile()
      ? [path]
      : readdirSync(path, { withFileTypes: true })
          .filter(
            (entry) =>
              !["node_modules", "dist", ".expo", "tmp", "bake-worker.js"].includes(entry.name) && !/\.test\.tsx?$/.test(entry.name),
          )
          .flatMap((entry) => filesUnder(join(path, entry.name)));

const hashOf = (paths) => {
  const hash = createHash("sha256");
  for (const file of paths.flatMap(filesUnder).sort()) hash.update(file).update(readFileSync(file));
  return hash.digest("hex");
};

/** Does the work unless the same inputs were worked on before and the result is there. */
const unlessStamped = (name, inputs, result, work) => {
  const stamp = join(STAMPS, name);
  const hash = hashOf(inputs);
  if (existsSync(result) && existsSync(stamp) && readFileSync(stamp, "utf8") === hash) return;
  work();
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, hash);
};

/** Installs the packages of the lock file, once per lock file. */
export function install() {
  unlessStamped("install", ["package-lock.json"], "node_modules/fastify/package.json", () => {
    console.log("Installing packages (some minutes on the first start; sqlite3 is compiled here) …");
    run("npm", ["ci", "--include=dev", "--no-audit", "--no-fund"]);
  });
}

/** Installs Debian's Chromium where it is missing, for the end-to-end tests. */
export function installChromium() {
  if (existsSync("/usr/bin/chromium")) return;
  console.log("Installing Chromium from Debian's packages …");
  const asRoot = process.getuid?.() === 0 ? [] : ["sudo"];
  const aptGet = (...args) => {
    const [command, ...rest] = [...asRoot, "apt-get", ...args];
    run(command, rest, { DEBIAN_FRONTEND: "noninteractive" });
  };
  aptGet("update");
  aptGet("install", "-y", "--no-install-recommends", "chromium");
}

/** The bake's worker, by esbuild into public/: Metro's own worker chunks and its tree shaking do not go together. */
export function buildWorker() {
  run(join(process.cwd(), "node_modules/.bin/esbuild"), [
    "apps/web/workers/bake.worker.ts",
    "--bundle",
    "--minify",
    "--format=iife",
    "--target=es2022",
    "--log-level=error",
    "--outfile=apps/web/public/bake-worker.js",
  ]);
}

const WEB_SOURCES = ["apps/web", "packages/core/src", "packages/contract/src", "package-lock.json"];

/** Builds the server's bundle and the exported web application when their sources changed. */
export function build() {
  unlessStamped(
    "server",
    ["apps/server/src", "packages/core/src", "packages/contract/src", "scripts/build-server.mjs", "package-lock.json"],
    "apps/server/dist/main.mjs",
    () => run(process.execPath, ["scripts/build-server.mjs"]),
  );
  unlessStamped("web", WEB_SOURCES, "apps/web/dist/index.html", () => {
    console.log("Building the web application …");
    buildWorker();
    const expo = join(process.cwd(), "node_modules/.bin/expo");
    const result = spawnSync(expo, ["export", "--platform", "web", "--output-dir", "dist"], {
      cwd: "apps/web",
      encoding: "utf8",
      env: { ...process.env, EXPO_NO_TELEMETRY: "1", EXPO_OFFLINE: "1", CI: "1" },
    });
    if (result.status !== 0)
      throw new Error(`expo export ended with ${result.status ?? result.signal}\n${result.stdout}\n${result.stderr}`);
    compress("apps/web/dist");
  });
}

const COMPRESSED = /\.(?:js|css|html|json|ttf|svg|ico)$/;

/** Lays a gzip and a Brotli form beside every text-like file, so that the server need not compress. */
function compress(folder) {
  for (const file of filesUnderAll(folder)) {
    if (!COMPRESSED.test(file)) continue;
    const bytes = readFileSync(file);
    if (bytes.length < 1024) continue;
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
    writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }));
  }
}

const filesUnderAll = (path) =>
  readdirSync(path, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? filesUnderAll(join(path, entry.name)) : [join(path, entry.name)],
  );

export const nodeVersionFits = () => {
  const [major, minor] = process.versions.node.split(".").map(Number);
  return major > 20 || (major === 20 && minor >= 19);
};

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  install();
  if (process.argv.includes("--build")) build();
  if (process.argv.includes("--chromium")) installChromium();
}
