import type { Gray } from "@uprise/core/src/picture/gray";
import type { RawWord, Recogniser } from "@uprise/core/src/picture/recognise";
import type { Page, Worker as Letters } from "tesseract.js";

/** A picture in one channel as a file that the reader of letters opens: portable graymap, binary. */
export function graymap({ width, height, data }: Gray): Uint8Array<ArrayBuffer> {
  const head = new TextEncoder().encode(`P5\n${width} ${height}\n255\n`);
  const bytes = new Uint8Array(head.length + data.length);
  bytes.set(head);
  bytes.set(data, head.length);
  return bytes;
}

/** How a page is parted, a single word and a single figure, by the numbers that the reader of letters has for them. */
const MODE = { page: "3", word: "8", figure: "10" };
const FIGURES = "012345678";

const wordsOf = ({ blocks }: Page): RawWord[] =>
  (blocks ?? []).flatMap(({ paragraphs }) =>
    paragraphs.flatMap(({ lines }) =>
      lines.flatMap(({ words }) =>
        words.map(({ text, confidence, bbox, symbols }) => ({
          text,
          confidence,
          box: bbox,
          symbols: symbols.map((one) => ({ text: one.text, confidence: one.confidence, box: one.bbox })),
        })),
      ),
    ),
  );

/** The reader of letters as the core asks it. `wrapped` makes of a file's bytes what it takes: a blob in a browser, a buffer in Node.js. */
export function recogniserOf(letters: Letters, wrapped: (bytes: Uint8Array<ArrayBuffer>) => Blob | Buffer): Recogniser {
  let mode = "";
  const inMode = async (next: keyof typeof MODE): Promise<void> => {
    if (mode === next) return;
    mode = next;
    await letters.setParameters({
      tessedit_pageseg_mode: MODE[next] as never,
      tessedit_char_whitelist: next === "figure" ? FIGURES : "",
      user_defined_dpi: "300",
    });
  };
  const one = async (picture: Gray, as: "word" | "figure"): Promise<{ text: string; confidence: number }> => {
    await inMode(as);
    const { data } = await letters.recognize(wrapped(graymap(picture)), {}, { text: true });
    return { text: data.text.trim(), confidence: data.confidence };
  };
  return {
    page: async (picture) => {
      await inMode("page");
      const { data } = await letters.recognize(wrapped(graymap(picture)), {}, { blocks: true, text: false });
      return wordsOf(data);
    },
    word: (picture) => one(picture, "word"),
    figure: (picture) => one(picture, "figure"),
  };
}
