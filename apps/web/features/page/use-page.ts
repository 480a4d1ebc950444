import type { Ingredient, Language, PageLine } from "@uprise/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { lettersOf, pictureReader, type PictureReader } from "../../device/picture";
import { ask } from "../../device/workers";
import type { PageSettings, PictureRead } from "../../workers/picture.worker";

/** A line as it was read, and what the baker made of it. */
export interface Row extends PageLine {
  /** As it will go to the reader; null where it is left out. */
  said: string | null;
  /** Somebody has looked at it. */
  seen: boolean;
}
export interface PageState {
  file: File | null;
  pages: number;
  /** Which page is read, 0 the first. */
  at: number;
  /** The photograph as it was opened, where it is one. */
  photograph: { url: string; width: number; height: number } | null;
  read: (PictureRead & { url: string }) | null;
  rows: Row[];
  /** What share of the work is done; null while nothing is read. */
  share: number | null;
  fault: string | null;
  /** What language it seems to be, where that is another than it was read in. */
  seems: Language | null;
}
const nothing: PageState = {
  file: null,
  pages: 0,
  at: 0,
  photograph: null,
  read: null,
  rows: [],
  share: null,
  fault: null,
  seems: null,
};

/** Words under this are hardly letters: handwriting, a blur, a picture. */
export const HARDLY = 50;

/** A page from its file to its lines. */
export function usePage(own: readonly Ingredient[]) {
  const [state, setState] = useState<PageState>(nothing);
  const reader = useRef<PictureReader | null>(null);
  const urls = useRef<string[]>([]);
  const turn = useRef(0);
  const urlOf = (blob: Blob): string => {
    const url = URL.createObjectURL(blob);
    urls.current.push(url);
    return url;
  };
  const end = useCallback((): void => {
    turn.current++;
    reader.current?.stop();
    reader.current = null;
  }, []);
  useEffect(
    () => () => {
      end();
      for (const url of urls.current) URL.revokeObjectURL(url);
      urls.current = [];
    },
    [end],
  );

  const readPage = async (
    at: number,
    settings: PageSettings,
    of: PictureReader,
    mine: number,
    language: Language,
  ): Promise<void> => {
    const isMine = (): boolean => turn.current === mine;
    const set = (next: Partial<PageState>): void => {
      if (isMine()) setState((before) => ({ ...before, ...next }));
    };
    set({ share: 0, fault: null, at });
    const found = await of.read(at, lettersOf[language], settings, (share) => set({ share }));
    if (!isMine()) return;
    if (!found.ok) return set({ share: null, fault: found.why });
    const told = await ask("page", found.page.words, language, own).catch((error: unknown) => error as Error);
    if (!isMine()) return;
    if (told instanceof Error) return set({ share: null, fault: told.message });
    set({
      share: null,
      read: { ...found.page, url: urlOf(found.page.picture) },
      seems: told.language === language ? null : told.language,
      rows: told.lines.map((line) => ({ ...line, said: line.text, seen: !line.isOpen })),
    });
  };

  return {
    state,
    /** Opens a file and reads its first page. */
    open: async (file: File, language: Language): Promise<void> => {
      end();
      const mine = turn.current;
      const of = pictureReader();
      reader.current = of;
      setState({ ...nothing, file, share: 0 });
      const opened = await of.open(file);
      if (turn.current !== mine) return;
      if (!opened.ok) return setState({ ...nothing, fault: opened.why });
      const photograph = opened.shown && opened.size ? { url: urlOf(opened.shown), ...opened.size } : null;
      setState((before) => ({ ...before, pages: opened.pages, photograph }));
      await readPage(0, {}, of, mine, language);
    },
    /** Reads it again: another page, other corners, turned, in another language. */
    again: async (at: number, settings: PageSettings, language: Language): Promise<void> => {
      const of = reader.current;
      if (!of) return;
      turn.current++;
      await readPage(at, settings, of, turn.current, language);
    },
    stop: (): void => {
      end();
      setState(nothing);
    },
    say: (k: number, said: string | null): void =>
      setState((before) => ({ ...before, rows: before.rows.map((row, at) => (at === k ? { ...row, said, seen: true } : row)) })),
  };
}
