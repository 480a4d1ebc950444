import { readFileSync } from "node:fs";
import { chromium } from "playwright-core";
import { seeded } from "@uprise/core";
const CHROMIUM = process.env["UPRISE_CHROMIUM"] ?? "/usr/bin/chromium";
import recipes from "./recipes.json";

export const tongues = ["en", "de", "fr", "es", "it"] as const;
export type Tongue = (typeof tongues)[number];
/** A made-up page: its lines as they stand in it, and which of them are the list. */
export interface Made {
  tongue: Tongue;
  name: string;
  title: string;
  list: string[];
  steps: string[];
  html: string;
}

const FONTS = {
  Lora: "@expo-google-fonts/lora/400Regular/Lora_400Regular.ttf",
  Typed: "@expo-google-fonts/courier-prime/400Regular/CourierPrime_400Regular.ttf",
  Plain: "@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf",
  Sans: "pdfjs-dist/standard_fonts/LiberationSans-Regular.ttf",
};
const faces = Object.entries(FONTS)
  .map(
    ([name, file]) =>
      `@font-face{font-family:${name};src:url(data:font/ttf;base64,${readFileSync(`node_modules/${file}`).toString("base64")})}`,
  ) // prettier-ignore
  .join("");
const LAYOUTS = ["list", "columns", "table", "list", "boxed"] as const;

/** Splits "200 g flour" where its amount ends, for a table. */
const cells = (line: string): [string, string] => {
  const [, amount = "", rest = line] = /^(\S+(?: (?:g|ml|cups?|tsp|tbsp|TL|EL|large|de|c\.))?) (.+)$/u.exec(line) ?? [];
  return [amount, rest];
};

/** Page number k of a tongue. */
export function madePage(tongue: Tongue, k: number): Made {
  const source = recipes[tongue];
  const random = seeded(700 + 13 * k + tongues.indexOf(tongue));
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
  const font = Object.keys(FONTS)[k % 4] as string;
  const layout = LAYOUTS[k % LAYOUTS.length] as (typeof LAYOUTS)[number];
  const rest = [...source.lines];
  const list = Array.from({ length: 8 + Math.floor(random() * 4) }, () => rest.splice(Math.floor(random() * rest.length), 1)[0] as string); // prettier-ignore
  const steps = source.steps.filter(() => random() < 0.75);
  const title = pick(source.titles);
  const px = 17 + Math.floor(random() * 7);
  const [head, way] = source.heads as [string, string];
  const items =
    layout === "table"
      ? `<table>${list.map((line) => `<tr>${cells(line).map((cell) => `<td>${cell}</td>`).join("")}</tr>`).join("")}</table>`
      : `<div>${list.map((line) => `<div>${line}</div>`).join("")}</div>`; // prettier-ignore
  const made = `<p>${steps.join(" ")}</p>`;
  const body =
    layout === "columns"
      ? `<div style="display:grid;grid-template-columns:42% 1fr;gap:48px"><div><b>${head}</b>${items}</div><div><b>${way}</b>${made}</div></div>`
      : `<b>${head}</b>${layout === "boxed" ? `<div style="border:2px solid #555;padding:16px">${items}</div>` : items}<br><b>${way}</b>${made}`; // prettier-ignore
  const html = `<style>${faces}body{font:${px}px/1.55 ${font};width:${layout === "columns" ? 820 : 620}px;margin:0;padding:54px;background:#fbf8f0;color:#222}h1{font-size:1.5em}td{padding-right:42px}</style><h1>${title}</h1>${body}`;
  return { tongue, name: `${tongue} ${k}, ${font}, ${layout}`, title, list, steps, html };
}

/** Draws pages as pictures, about as large as a phone takes them. */
export async function drawPages(pages: readonly Made[]): Promise<Buffer[]> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ["--headless", "--no-sandbox", "--disable-gpu"] });
  try {
    const page = await browser.newPage({ viewport: { width: 930, height: 1100 }, deviceScaleFactor: 2 });
    const out: Buffer[] = [];
    for (const { html } of pages) {
      await page.setContent(html);
      await page.evaluate(() => document.fonts.ready);
      out.push(await page.screenshot());
    }
    return out;
  } finally {
    await browser.close();
  }
}
