import { expose } from "comlink";
import { grayOf } from "@uprise/core/src/picture/gray";
import { readPage } from "@uprise/core/src/picture/recognise";
import type { Corners } from "@uprise/core/src/picture/flatten";
import type { Gray } from "@uprise/core/src/picture/gray";
import type { PageWord } from "@uprise/core/src/picture/words";
import { createWorker, type Worker as Letters } from "tesseract.js";
import { recogniserOf } from "./letters";
import { NotReadable, openPdf, type Pdf } from "./pdf";

/** The data of a language that letters are read with. */
export type LettersOf = "eng" | "deu" | "fra" | "spa" | "ita";

/** A page as it was read, with the picture that its boxes are places on. */
export interface PictureRead {
  picture: Blob;
  width: number;
  height: number;
  words: PageWord[];
  corners: Corners | null;
  quarters: number;
  confidence: number;
  /** Its letters were in the file itself, not read from a picture. */
  written: boolean;
}
export type Read = { ok: true; page: PictureRead } | { ok: false; why: string };
export interface PageSettings {
  corners?: Corners | null | undefined;
  quarters?: number | undefined;
}

/** Larger files, and pictures of more pixels, are refused; what is larger than a page needs is made smaller when it is opened. */
const MOST = { bytes: 30_000_000, pixels: 120_000_000, side: 2600 };
/** A photograph that is shown for its corners to be set is no larger. */
const SHOWN = 1100;

type Opened =
  { kind: "picture"; photograph: Gray; shown: Blob; size: { width: number; height: number } } | { kind: "pdf"; pdf: Pdf };
let opened: Opened | null = null;
let letters: { of: string; worker: Promise<Letters> } | null = null;

const canvasOf = (width: number, height: number): { canvas: OffscreenCanvas; ink: OffscreenCanvasRenderingContext2D } => {
  const canvas = new OffscreenCanvas(width, height);
  const ink = canvas.getContext("2d", { willReadFrequently: true });
  if (!ink) throw new NotReadable("This browser cannot draw pictures beside the page; a newer one would be right.");
  return { canvas, ink };
};

async function openPicture(file: Blob): Promise<Opened> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new NotReadable("These bytes are no picture that can be opened: a JPEG, PNG or WebP, or a PDF, would be right.");
  }
  const { width, height } = bitmap;
  if (width * height > MOST.pixels)
    throw new NotReadable(`The picture has ${Math.round((width * height) / 1e6)} million pixels; up to ${MOST.pixels / 1e6} would be right.`); // prettier-ignore
  const drawn = (most: number): { canvas: OffscreenCanvas; ink: OffscreenCanvasRenderingContext2D } => {
    const factor = Math.min(1, most / Math.max(width, height));
    const made = canvasOf(Math.max(1, Math.round(width * factor)), Math.max(1, Math.round(height * factor)));
    made.ink.drawImage(bitmap, 0, 0, made.canvas.width, made.canvas.height);
    return made;
  };
  const small = drawn(SHOWN).canvas;
  const { canvas, ink } = drawn(MOST.side);
  // A phone's photograph takes 50 MB: each stage lets go of the one before it.
  bitmap.close();
  const size = { width: canvas.width, height: canvas.height };
  const photograph = grayOf(ink.getImageData(0, 0, size.width, size.height));
  canvas.width = canvas.height = 0;
  return { kind: "picture", photograph, shown: await small.convertToBlob({ type: "image/jpeg", quality: 0.8 }), size };
}

/** The reader of letters for a language, from the kitchen's own server; the same one as long as the language stays. */
async function lettersFor(of: LettersOf, base: string): Promise<Letters> {
  if (letters?.of === of) return letters.worker;
  // It waits for ever for what does not come; so whether it comes is asked first, and kept by the browser for it.
  for (const part of ["worker.min.js", `${of}.traineddata.gz`]) {
    const there = await fetch(`${base}letters/${part}`).then(({ ok }) => ok, () => false); // prettier-ignore
    if (!there) throw new NotReadable("The letters of this language are not on this device yet. They come once from the kitchen's server; with that at hand it will be read."); // prettier-ignore
  }
  void letters?.worker.then((before) => before.terminate(), () => undefined); // prettier-ignore
  const worker = createWorker(of, 1, {
    workerPath: `${base}letters/worker.min.js`,
    corePath: `${base}letters`,
    langPath: `${base}letters`,
    workerBlobURL: false,
    // The browser's own cache and the service worker keep it.
    cacheMethod: "none",
    errorHandler: () => undefined,
  });
  letters = { of, worker };
  worker.catch(() => {
    letters = null;
  });
  return worker;
}

async function shownOf({ width, height, data }: Gray): Promise<Blob> {
  const { canvas, ink } = canvasOf(width, height);
  const pixels = ink.createImageData(width, height);
  for (const [k, value] of data.entries()) pixels.data.set([value, value, value, 255], 4 * k);
  ink.putImageData(pixels, 0, 0);
  return canvas.convertToBlob({ type: "image/jpeg", quality: 0.8 });
}

const failed = (error: unknown): { ok: false; why: string } => ({
  ok: false,
  why:
    error instanceof NotReadable
      ? error.message
      : `It could not be read (${error instanceof Error ? error.message : String(error)}). With the kitchen's server at hand, or another picture of it, it may be.`,
});

const reader = {
  /** Opens a picture or a PDF: how many pages it has, and what the first looks like where it is a picture. */
  async open(
    file: Blob,
    base: string,
  ): Promise<{ ok: true; pages: number; shown?: Blob; size?: { width: number; height: number } } | { ok: false; why: string }> {
    try {
      if (file.size > MOST.bytes) throw new NotReadable(`This file has ${(file.size / 1e6).toFixed(1)} MB; up to ${MOST.bytes / 1e6} would be right.`); // prettier-ignore
      const head = new TextDecoder("latin1").decode(await file.slice(0, 1024).arrayBuffer());
      opened = head.includes("%PDF-") ? { kind: "pdf", pdf: await openPdf(file, base) } : await openPicture(file);
      return opened.kind === "pdf" ? { ok: true, pages: opened.pdf.pages } : { ok: true, pages: 1, shown: opened.shown, size: opened.size }; // prettier-ignore
    } catch (error) {
      return failed(error);
    }
  },
  /** Reads a page, 0 the first, in a language. `tell` is told what share of it is done. */
  async read(at: number, of: LettersOf, base: string, asked: PageSettings, tell: (share: number) => void): Promise<Read> {
    try {
      if (!opened) throw new NotReadable("Nothing was opened.");
      const written = opened.kind === "pdf" ? await opened.pdf.words(at) : null;
      if (written && opened.kind === "pdf") {
        const { picture, scale } = await opened.pdf.picture(at);
        const words = written.map((word) => ({ ...word, box: { x0: word.box.x0 * scale, y0: word.box.y0 * scale, x1: word.box.x1 * scale, y1: word.box.y1 * scale } })); // prettier-ignore
        return { ok: true, page: { picture: await shownOf(picture), width: picture.width, height: picture.height, words, corners: null, quarters: 0, confidence: 100, written: true } }; // prettier-ignore
      }
      const photograph = opened.kind === "pdf" ? (await opened.pdf.picture(at)).picture : opened.photograph;
      tell(0.02);
      const recogniser = recogniserOf(await lettersFor(of, base), (bytes) => new Blob([bytes]));
      const { picture, words, corners, quarters, confidence } = await readPage(photograph, asked, recogniser, tell);
      return { ok: true, page: { picture: await shownOf(picture), width: picture.width, height: picture.height, words, corners, quarters, confidence, written: false } }; // prettier-ignore
    } catch (error) {
      return failed(error);
    }
  },
};
export type PictureWorker = typeof reader;
expose(reader);
