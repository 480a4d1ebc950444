import { createHash } from "node:crypto";
import fs, { copyFileSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";

/** What the web application serves as it is. */
export const PUBLIC = "apps/web/public";

/** Every file under a folder. */
export const filesUnderAll = (path) =>
  readdirSync(path, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? filesUnderAll(join(path, entry.name)) : [join(path, entry.name)],
  );

/** What reads pages from pictures: its own script in parts, the reader of letters with its languages, what draws a PDF. Nothing of it is part of a page; it is fetched when a page is first read. */
export const READING = "page-reading";
const TONGUES = ["eng", "deu", "fra", "spa", "ita"];

/** Lays it into public/ under a name that changes with its content; gives where it is and how many bytes each part has. */
export async function buildPageReading() {
  rmSync(join(PUBLIC, READING), { recursive: true, force: true });
  const { build: bundle } = await import("esbuild");
  const made = join(PUBLIC, READING, "new");
  await bundle({
    entryPoints: { worker: "apps/web/workers/picture.worker.ts" },
    bundle: true,
    minify: true,
    format: "esm",
    splitting: true,
    platform: "browser",
    target: "es2022",
    outdir: made,
    logLevel: "error",
    define: { "process.env.NODE_ENV": '"production"' },
  });
  const letters = join(made, "letters");
  mkdirSync(letters);
  copyFileSync("node_modules/tesseract.js/dist/worker.min.js", join(letters, "worker.min.js"));
  for (const kind of ["", "-simd", "-relaxedsimd"])
    copyFileSync(
      `node_modules/tesseract.js-core/tesseract-core${kind}-lstm.wasm.js`,
      join(letters, `tesseract-core${kind}-lstm.wasm.js`),
    );
  for (const name of TONGUES)
    copyFileSync(
      `node_modules/@tesseract.js-data/${name}/4.0.0_best_int/${name}.traineddata.gz`,
      join(letters, `${name}.traineddata.gz`),
    );
  for (const folder of ["standard_fonts", "wasm"])
    fs.cpSync(`node_modules/pdfjs-dist/${folder}`, join(made, "pdf", folder), { recursive: true });
  const bytesOf = (file) => statSync(file).size;
  const bytes = {
    reader:
      gzipSync(readFileSync(join(letters, "tesseract-core-relaxedsimd-lstm.wasm.js"))).length +
      bytesOf(join(letters, "worker.min.js")) / 3,
    ...Object.fromEntries(TONGUES.map((name) => [name, bytesOf(join(letters, `${name}.traineddata.gz`))])),
  };
  const hash = createHash("sha256");
  for (const file of filesUnderAll(made).sort()) hash.update(readFileSync(file));
  const place = `${READING}/${hash.digest("hex").slice(0, 12)}`;
  renameSync(made, join(PUBLIC, place));
  return { place: `/${place}/`, bytes };
}
