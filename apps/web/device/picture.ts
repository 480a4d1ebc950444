import type { Language } from "@uprise/core";
import { proxy, type Remote, wrap } from "comlink";
import type { LettersOf, PageSettings, PictureWorker, Read } from "../workers/picture.worker";

/** Where what reads pictures is, and how many bytes each part of it has; the build says so. */
interface Parts {
  place: string;
  bytes: Record<string, number>;
}
const parts = JSON.parse(process.env["EXPO_PUBLIC_PAGE_READING"] ?? '{"place":"/page-reading/","bytes":{}}') as Parts;
const base = (): string => new URL(parts.place, globalThis.location.href).href;

/** The letters of a language, by the names of their data. */
export const lettersOf: Record<Language, LettersOf> = { en: "eng", de: "deu", fr: "fra", es: "spa", it: "ita" };
/** The language of this browser, where it is one that is read; else English. */
export const ownLanguage = (): Language =>
  (Object.keys(lettersOf) as Language[]).find((one) => globalThis.navigator?.language?.startsWith(one)) ?? "en";

/** Million bytes that the first reading in a language fetches from the kitchen's server. */
export const megabytesFor = (letters: LettersOf): number => ((parts.bytes["reader"] ?? 0) + (parts.bytes[letters] ?? 0)) / 1e6;

export type OpenedFile = Awaited<ReturnType<PictureWorker["open"]>>;
/** The worker that reads pictures. `stop` ends it with whatever it is at. */
export interface PictureReader {
  open: (file: Blob) => Promise<OpenedFile>;
  read: (at: number, letters: LettersOf, settings: PageSettings, tell: (share: number) => void) => Promise<Read>;
  stop: () => void;
}

let stand: (() => PictureReader) | null = null;
/** Another reader in its place, for tests where there are no workers. */
export const readPicturesWith = (make: (() => PictureReader) | null): void => {
  stand = make;
};

/** Starts a worker for one file. What keeps it from starting, or ends it, is told by what it is asked next. */
export function pictureReader(): PictureReader {
  if (stand) return stand();
  const worker = new Worker(`${parts.place}worker.js`, { type: "module" });
  const remote: Remote<PictureWorker> = wrap<PictureWorker>(worker);
  let broke: (why: { ok: false; why: string }) => void = () => undefined;
  const broken = new Promise<{ ok: false; why: string }>((resolve) => {
    broke = resolve;
  });
  worker.onerror = (event) => {
    event.preventDefault();
    broke({ ok: false, why: "What reads pictures could not be started. It comes from the kitchen's server at its first use; with that at hand it will." });
  };
  return {
    open: (file) => Promise.race([remote.open(file, base()), broken]),
    read: (at, letters, settings, tell) => Promise.race([remote.read(at, letters, base(), settings, proxy(tell)), broken]),
    stop: () => {
      worker.terminate();
      broke({ ok: false, why: "Stopped." });
    },
  };
} // prettier-ignore
