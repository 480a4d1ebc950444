import { type Gray, grayOf } from "@uprise/core/src/picture/gray";
import type { PageWord } from "@uprise/core/src/picture/words";

/** What was opened cannot be read, in words for whoever opened it. */
export class NotReadable extends Error {}

export interface Pdf {
  pages: number;
  /** The words of a page where the file holds its text, places in points from the upper left; null where it holds a picture only. */
  words: (at: number) => Promise<PageWord[] | null>;
  /** A page drawn, and how many pixels a point is. */
  picture: (at: number) => Promise<{ picture: Gray; scale: number }>;
}

/** More pages are not opened; a page is drawn so large, px on its long side. */
const MOST_PAGES = 40;
const SIDE = 2200;
/** A page with fewer words of its own than this is a picture with a number on it. */
const LEAST_WORDS = 6;

/** Runs of letters nearer than this share of their height are of one word. */
const TOUCH = 0.12;

/** Filters are for pages that are shown; here they are read. */
class NoFilters {
  addFilter = (): string => "none";
  addHCMFilter = (): string => "none";
  addAlphaFilter = (): string => "none";
  addLuminosityFilter = (): string => "none";
  addHighlightHCMFilter = (): string => "none";
  destroy = (): void => undefined;
}
class Canvases {
  create(width: number, height: number): { canvas: OffscreenCanvas; context: OffscreenCanvasRenderingContext2D | null } {
    const canvas = new OffscreenCanvas(Math.max(1, width), Math.max(1, height));
    return { canvas, context: canvas.getContext("2d", { willReadFrequently: true }) };
  }
  reset(one: { canvas: OffscreenCanvas }, width: number, height: number): void {
    one.canvas.width = width;
    one.canvas.height = height;
  }
  destroy(one: { canvas: OffscreenCanvas | null; context: unknown }): void {
    if (one.canvas) one.canvas.width = one.canvas.height = 0;
    one.canvas = null;
    one.context = null;
  }
}

/** Opens a PDF in this worker: nothing of it runs, nothing is fetched but fonts and decoders from the kitchen's own server. Throws `NotReadable`. */
export async function openPdf(file: Blob, base: string): Promise<Pdf> {
  const [pdf, handler] = await Promise.all([
    import("pdfjs-dist/legacy/build/pdf.mjs"),
    import("pdfjs-dist/legacy/build/pdf.worker.mjs"),
  ]);
  (globalThis as { pdfjsWorker?: unknown }).pdfjsWorker = handler;
  const task = pdf.getDocument({
    data: new Uint8Array(await file.arrayBuffer()),
    standardFontDataUrl: `${base}pdf/standard_fonts/`,
    wasmUrl: `${base}pdf/wasm/`,
    disableFontFace: true,
    useSystemFonts: false,
    isEvalSupported: false,
    useWorkerFetch: true,
    CanvasFactory: Canvases,
    FilterFactory: NoFilters,
    verbosity: 0,
  });
  let whole: Awaited<typeof task.promise>;
  try {
    whole = await task.promise;
  } catch (error) {
    const locked = error instanceof Error && error.name === "PasswordException";
    throw new NotReadable(locked ? "This PDF asks for a password; one without would be right." : "These bytes are no PDF that can be opened: it is damaged, or something else.");
  }
  if (whole.numPages > MOST_PAGES) throw new NotReadable(`This PDF has ${whole.numPages} pages; up to ${MOST_PAGES} would be right. A single page of it, saved by itself, can be read.`);
  return {
    pages: whole.numPages,
    words: async (at) => {
      const page = await whole.getPage(at + 1);
      const { height, transform } = page.getViewport({ scale: 1 });
      const { items } = await page.getTextContent();
      const words: PageWord[] = [];
      for (const item of items) {
        if (!("str" in item) || item.str.trim() === "") continue;
        const [a, b, , , x, y] = pdf.Util.transform(transform, item.transform) as [number, number, number, number, number, number];
        const tall = item.height || Math.hypot(a, b);
        // Words of a run share its width by their letters.
        const each = item.width / Math.max(1, item.str.length);
        for (const { 0: text, index } of item.str.matchAll(/\S+/g)) {
          const box = { x0: x + index * each, y0: Math.min(height, y) - tall, x1: x + (index + text.length) * each, y1: Math.min(height, y) + 0.2 * tall };
          const plain = text.replace(/[\uFB00-\uFB06]/g, (sign) => sign.normalize("NFKC")).replace(/(\d)⁄(\d)/g, "$1/$2");
          const before = words.at(-1);
          // Runs that touch are one word.
          if (before && Math.abs(before.box.y1 - box.y1) < 0.2 * tall && Math.abs(box.x0 - before.box.x1) < TOUCH * tall && !/^\s/.test(item.str)) {
            before.text += plain;
            before.box.x1 = box.x1;
          } else words.push({ text: plain, box, confidence: 100 });
        }
      }
      return words.length < LEAST_WORDS ? null : words;
    },
    picture: async (at) => {
      const page = await whole.getPage(at + 1);
      const plain = page.getViewport({ scale: 1 });
      const scale = SIDE / Math.max(plain.width, plain.height);
      const viewport = page.getViewport({ scale });
      const { canvas, context } = new Canvases().create(Math.round(viewport.width), Math.round(viewport.height));
      if (!context) throw new NotReadable("This browser cannot draw pages; a newer one would be right.");
      context.fillStyle = "#fff";
      context.fillRect(0, 0, canvas.width, canvas.height);
      await page.render({ canvas: null, canvasContext: context as unknown as CanvasRenderingContext2D, viewport }).promise;
      return { picture: grayOf(context.getImageData(0, 0, canvas.width, canvas.height)), scale };
    },
  };
} // prettier-ignore
