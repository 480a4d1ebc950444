import { createHash } from "node:crypto";
import { spawnSync } from "node:child_process";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
// What an older Node.js lacks is not imported by name, so that its sentence is reached.
import fs from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { buildPageReading, filesUnderAll, PUBLIC, READING } from "./page-reading.mjs";

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
              !["node_modules", "dist", ".expo", "tmp"].includes(entry.name) &&
              entry.name !== READING &&
              !isWorker(entry.name) &&
              !/\.test\.tsx?$/.test(entry.name),
          )
          .flatMap((entry) => filesUnder(join(path, entry.name)));

const hashOf = (paths) => {
  const hash = createHash("sha256");
  for (const file of paths.flatMap(filesUnder).sort()) hash.update(file).update(readFileSync(file));
  return hash.digest("hex");
};

/** Does the work unless the same inputs were worked on before and the result is there. */
const unlessStamped = async (name, inputs, result, work) => {
  const stamp = join(STAMPS, name);
  const hash = hashOf(inputs);
  if (existsSync(result) && existsSync(stamp) && readFileSync(stamp, "utf8") === hash) return;
  await work();
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, hash);
};

/** Something that must be put right before Uprise can start; the message says what, and nothing else is printed. */
export class CannotStart extends Error {}

/** Ends with a sentence instead of a stack where the reason is known. */
export async function orSentence(work) {
  try {
    return await work();
  } catch (error) {
    console.error(error instanceof CannotStart ? `\n${error.message}` : error);
    process.exit(1);
  }
}

const NEEDED_BYTES = 2.5e9;

/** A full disk is told as one, whatever the tool that ran into it said. */
function refuseFullDisk(when) {
  const { bavail, bsize } = fs.statfsSync(".");
  const free = bavail * bsize;
  if (free < NEEDED_BYTES)
    throw new CannotStart(
      `${when} there are ${(free / 1e9).toFixed(1)} GB free on this disk; the packages and the build need about ${NEEDED_BYTES / 1e9} GB. Free some space and start again.`,
    );
}

export const nodeVersionFits = () => {
  const [major, minor] = process.versions.node.split(".").map(Number);
  return major > 20 || (major === 20 && minor >= 19);
};

function refuseOldNode() {
  if (nodeVersionFits()) return;
  throw new CannotStart(`Node.js ${process.versions.node} is too old for Uprise; 20.19 or newer would be right.`);
}

const has = (command) => spawnSync(process.platform === "win32" ? "where" : "which", [command], { stdio: "ignore" }).status === 0;

/** Installs packages of a Debian; false on any other system, or for one who may not. */
function aptInstall(...names) {
  if (!has("apt-get")) return false;
  const asRoot = process.getuid?.() === 0 ? [] : has("sudo") ? ["sudo"] : null;
  if (!asRoot) return false;
  const aptGet = (...args) => {
    const [command, ...rest] = [...asRoot, "apt-get", ...args];
    run(command, rest, { DEBIAN_FRONTEND: "noninteractive" });
  };
  aptGet("update", "-qq");
  aptGet("install", "-y", "-qq", "--no-install-recommends", ...names);
  return true;
}

const DRIVER = "node_modules/sqlite3";
const driverLoads = () =>
  existsSync(join(DRIVER, "build/Release/node_sqlite3.node")) &&
  spawnSync(process.execPath, ["-e", "require('sqlite3')"], { stdio: "ignore" }).status === 0;

/** The database's driver: as its ready-made binary where that can be fetched, compiled otherwise. */
function installDriver() {
  if (driverLoads()) return;
  console.log("2 of 2: the database's driver. Looking for its ready-made binary (some seconds) …");
  spawnSync(process.execPath, ["../prebuild-install/bin.js", "-r", "napi"], { cwd: DRIVER, stdio: "ignore", timeout: 30_000 });
  if (driverLoads()) return;
  const missing = ["python3", "make", "g++"].filter((command) => !has(command));
  if (missing.length > 0) {
    console.log(`It is not to be had here, so it is compiled; for that ${missing.join(", ")} are installed first …`);
    if (!aptInstall(...missing)) {
      const way =
        process.platform === "darwin"
          ? "Run xcode-select --install"
          : process.platform === "win32"
            ? "Install Python 3 and the C++ build tools of Visual Studio"
            : `Install ${missing.join(", ")} with this system's packages`;
      throw new CannotStart(
        `The database's driver has no ready-made binary here and cannot be compiled without ${missing.join(", ")}. ${way}, then start again.`,
      );
    }
  }
  console.log("Compiling the database's driver (two to four minutes, once) …");
  const begun = Date.now();
  const { status, stderr, stdout } = spawnSync("npm", ["rebuild", "sqlite3"], { encoding: "utf8" });
  if (status !== 0 || !driverLoads()) {
    refuseFullDisk("While compiling,");
    throw new CannotStart(`The database's driver could not be compiled:\n${(stderr || stdout).slice(-3000)}`);
  }
  console.log(`Compiled in ${Math.round((Date.now() - begun) / 1000)} s.`);
}

/** Installs the packages of the lock file and the database's driver, once per lock file. */
export async function install() {
  refuseOldNode();
  await unlessStamped("install", ["package-lock.json"], "node_modules/fastify/package.json", () => {
    refuseFullDisk("Before the first start");
    console.log("1 of 2: installing packages (one to three minutes on the first start) …");
    const begun = Date.now();
    try {
      // Their install scripts are not needed but for the driver's, which has its own step below.
      run("npm", ["ci", "--ignore-scripts", "--include=dev", "--no-audit", "--no-fund", "--loglevel=error"]);
    } catch (error) {
      refuseFullDisk("While installing,");
      throw new CannotStart(
        `The packages could not be installed (${error.message}). Is there a network, and does "npm ping" answer? What npm says stands above.`,
      );
    }
    console.log(`Installed in ${Math.round((Date.now() - begun) / 1000)} s.`);
    installDriver();
  });
}

/** Where Debian puts Chromium; another one may be named. */
export const CHROMIUM = process.env["UPRISE_CHROMIUM"] ?? "/usr/bin/chromium";

/** Installs Debian's Chromium, and what reads a printed page back, where they are missing, for the end-to-end tests. */
export function installChromium() {
  if (!has("pdftotext") && !aptInstall("poppler-utils"))
    throw new CannotStart(
      "The tests print to PDF and read it back with pdftotext. Install poppler (poppler-utils) with this system's packages.",
    );
  if (existsSync(CHROMIUM)) return;
  console.log("Installing Chromium from Debian's packages (a minute) …");
  if (!aptInstall("chromium"))
    throw new CannotStart(
      `The tests drive Chromium, and there is none at ${CHROMIUM}. Install it with this system's packages, or name one with UPRISE_CHROMIUM.`,
    );
}

const isWorker = (name) => /^(?:kitchen|bake)-worker(?:\.[0-9a-f]+)?\.js$/.test(name);

/**
 * The workers' one script, by esbuild into public/: Metro's own worker chunks and its tree shaking do not go together. Its name carries a hash of
 * its content, so that a page and its worker are always of one build; `plain` leaves the hash out, for development.
 */
export function buildWorker(plain = false) {
  const outfile = join(PUBLIC, "kitchen-worker.js");
  for (const name of readdirSync(PUBLIC)) if (isWorker(name)) rmSync(join(PUBLIC, name));
  run(join(process.cwd(), "node_modules/.bin/esbuild"), [
    "apps/web/workers/kitchen.worker.ts",
    "--bundle",
    "--minify",
    "--format=iife",
    "--target=es2022",
    "--log-level=error",
    `--outfile=${outfile}`,
  ]);
  if (plain) return "/kitchen-worker.js";
  const hash = createHash("sha256").update(readFileSync(outfile)).digest("hex").slice(0, 12);
  renameSync(outfile, join(PUBLIC, `kitchen-worker.${hash}.js`));
  return `/kitchen-worker.${hash}.js`;
}

const FONTS = {
  body: "atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf",
  strong: "atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf",
  display: "bricolage-grotesque/700Bold/BricolageGrotesque_700Bold.ttf",
};
/** What is written in Europe's Latin letters, with punctuation, fractions, arrows and the signs of arithmetic. */
const LETTERS = [
  [0x20, 0x7e],
  [0xa0, 0x24f],
  [0x2000, 0x206f],
  [0x2070, 0x22ff],
  [0x2500, 0x27bf],
];

/** The fonts as a page takes them: the letters that are used, in woff2. */
export async function buildFonts() {
  const { default: subset } = await import("subset-font");
  const text = LETTERS.map(([from, to]) => String.fromCodePoint(...Array.from({ length: to - from + 1 }, (_, k) => from + k))).join(
    "",
  );
  mkdirSync(join(PUBLIC, "fonts"), { recursive: true });
  for (const [name, file] of Object.entries(FONTS)) {
    const font = readFileSync(join("node_modules/@expo-google-fonts", file));
    writeFileSync(join(PUBLIC, "fonts", `${name}.woff2`), await subset(font, text, { targetFormat: "woff2" }));
  }
}

/** The service worker, with a list of every file of the build that the application may need without a network. */
async function buildServiceWorker(folder, reading) {
  const { getManifest } = await import("workbox-build");
  const { manifestEntries, size, warnings } = await getManifest({
    globDirectory: folder,
    globPatterns: ["**/*.{js,css,woff2,html,webmanifest,ico,png}"],
    globIgnores: ["service-worker.js", `${READING}/**`],
    maximumFileSizeToCacheInBytes: 8_000_000,
    // What carries a hash of its content in its name needs no other.
    dontCacheBustURLsMatching: /[.-][0-9a-f]{12,32}\./,
    modifyURLPrefix: { "": "/" },
  });
  for (const warning of warnings) throw new Error(`the list of files for the service worker: ${warning}`);
  const { build: bundle } = await import("esbuild");
  await bundle({
    entryPoints: ["apps/web/sw/service-worker.ts"],
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    define: {
      "self.__WB_MANIFEST": JSON.stringify(manifestEntries),
      "process.env.NODE_ENV": '"production"',
      PAGE_READING: JSON.stringify(reading),
    },
    outfile: join(folder, "service-worker.js"),
    logLevel: "error",
  });
  console.log(`The service worker keeps ${manifestEntries.length} files, ${(size / 1e6).toFixed(1)} MB.`);
}

/** The script that runs ahead of the page's own: what the page will ask first is asked while that is on its way. */
async function buildEarly(folder) {
  const scripts = "_expo/static/js/web";
  const doors = Object.fromEntries(
    readdirSync(join(folder, scripts)).flatMap((file) => {
      const name = /^([a-z]+)-[0-9a-f]{32}\.js$/.exec(file)?.[1];
      return name === undefined ? [] : [[name, `/${scripts}/${file}`]];
    }),
  );
  const { build: bundle } = await import("esbuild");
  await bundle({
    entryPoints: ["apps/web/sw/early.ts"],
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    define: { DOORS: JSON.stringify(doors) },
    outfile: join(folder, "early.js"),
    logLevel: "error",
  });
  const page = join(folder, "index.html");
  writeFileSync(page, readFileSync(page, "utf8").replace("<style>", '<script src="/early.js" async></script>\n    <style>'));
}

const WEB_SOURCES = ["apps/web", "packages/core/src", "packages/contract/src", "package-lock.json", "scripts/prepare.mjs"];

/** Builds the server's bundle and the exported web application when their sources changed. */
export async function build() {
  await unlessStamped(
    "server",
    ["apps/server/src", "packages/core/src", "packages/contract/src", "scripts/build-server.mjs", "package-lock.json"],
    "apps/server/dist/main.mjs",
    () => run(process.execPath, ["scripts/build-server.mjs"]),
  );
  await unlessStamped("web", WEB_SOURCES, "apps/web/dist/index.html", async () => {
    console.log("Building the web application (half a minute to three minutes) …");
    await buildFonts();
    const worker = buildWorker();
    const reading = await buildPageReading();
    const expo = join(process.cwd(), "node_modules/.bin/expo");
    const result = spawnSync(expo, ["export", "--platform", "web", "--output-dir", "dist"], {
      cwd: "apps/web",
      encoding: "utf8",
      env: {
        ...process.env,
        EXPO_NO_TELEMETRY: "1",
        EXPO_OFFLINE: "1",
        CI: "1",
        EXPO_PUBLIC_KITCHEN_WORKER: worker,
        EXPO_PUBLIC_PAGE_READING: JSON.stringify(reading),
      },
    });
    if (result.status !== 0)
      throw new Error(`expo export ended with ${result.status ?? result.signal}\n${result.stdout}\n${result.stderr}`);
    await buildEarly("apps/web/dist");
    await buildServiceWorker("apps/web/dist", reading.place);
    compress("apps/web/dist");
  });
}

const COMPRESSED = /\.(?:js|css|html|json|ttf|svg|ico|webmanifest)$/;

/** Lays a gzip and a Brotli form beside every text-like file, so that the server need not compress. */
function compress(folder) {
  for (const file of filesUnderAll(folder)) {
    if (!COMPRESSED.test(file)) continue;
    const bytes = readFileSync(file);
    if (bytes.length < 1024) continue;
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
    // What is fetched once takes a quarter of a minute each by Brotli, for a tenth less.
    if (file.includes(READING)) continue;
    writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }));
  }
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  await orSentence(async () => {
    await install();
    if (process.argv.includes("--build")) await build();
    if (process.argv.includes("--chromium")) installChromium();
  });
}
