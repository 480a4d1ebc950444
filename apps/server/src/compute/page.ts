import { type Found, fromRecipeNode, recipeNodes, severalIn, type Shelf, CoreError } from "@uprise/core";
import type { Cheerio, CheerioAPI } from "cheerio";
import { load } from "cheerio/slim";
import type { AnyNode, Element } from "domhandler";

/** A text without marks and entities; what is a block begins a line. */
export function plainText(html: string): string {
  if (!/[<&]/.test(html)) return html;
  const $ = load(html.replace(/<br\s*\/?>|<\/(?:p|li|div|h\d|tr)>/gi, "\n"), null, false);
  $("script,style,template,noscript").remove();
  return $.root().text();
}

/** JSON-LD as pages have it: with comments around it, sometimes with line ends within texts. */
function jsonLd(text: string): unknown {
  const bare = text.replace(/^\s*(?:<!--|\/\*<!\[CDATA\[\*\/|<!\[CDATA\[)|(?:-->|\/\*\]\]>\*\/|\]\]>)\s*$/g, "").trim();
  try {
    return JSON.parse(bare);
  } catch {
    return JSON.parse(bare.replace(/[\u0000-\u001f]+/g, " "));
  }
}

/** The value of an item's property, as HTML says it. */
function valueOf($: CheerioAPI, element: Cheerio<AnyNode>): unknown {
  if (element.is("[itemscope]")) return itemOf($, element);
  const tag = element.prop("tagName")?.toLowerCase() ?? "";
  if (tag === "meta") return element.attr("content") ?? "";
  if (tag === "time") return element.attr("datetime") ?? element.text();
  if (["a", "link", "area"].includes(tag)) return element.text().trim() === "" ? (element.attr("href") ?? "") : element.text();
  return element.attr("content") ?? plainText(element.html() ?? "");
}

/** An item of microdata as the same object that JSON-LD would be. */
function itemOf($: CheerioAPI, item: Cheerio<AnyNode>): Record<string, unknown> {
  const found: Record<string, unknown> = { "@type": (item.attr("itemtype") ?? "").split(/\s+/) };
  item.find("[itemprop]").each((_, node: Element) => {
    const element = $(node);
    // What stands in an item within this one belongs to that one.
    if (!element.parent().closest("[itemscope]").is(item)) return;
    for (const name of (element.attr("itemprop") ?? "").split(/\s+/)) {
      const before = found[name];
      const value = valueOf($, element);
      found[name] = before === undefined ? value : [...(Array.isArray(before) ? before : [before]), value];
    }
  });
  return found;
}

const RECIPE_ITEM = '[itemscope][itemtype*="schema.org/Recipe"]';

/** The recipes of a web page as it was saved: those marked up in JSON-LD, else in microdata, else its text as it stands. Nothing in it is run or fetched. */
export function recipesOnPage(html: string, shelf: Shelf): { found: Found[]; notes: string[] } {
  const $ = load(html);
  const notes: string[] = [];
  const nodes = $('script[type="application/ld+json"]')
    .toArray()
    .flatMap((script) => {
      try {
        return recipeNodes(jsonLd($(script).text()));
      } catch {
        notes.push("A piece of JSON-LD in this page is damaged and was passed over.");
        return [];
      }
    });
  const from = (node: Record<string, unknown>, form: Found["form"]): Found[] => {
    try {
      return [fromRecipeNode(node, shelf, plainText, form)];
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      notes.push(error.message);
      return [];
    }
  };
  const marked = nodes.flatMap((node) => from(node, "json-ld"));
  if (marked.length > 0) return { found: marked, notes };
  const items = $(RECIPE_ITEM).toArray().flatMap((node) => from(itemOf($, $(node)), "microdata")); // prettier-ignore
  if (items.length > 0) return { found: items, notes };
  $("script,style,template,noscript,nav,header,footer,aside,form,svg").remove();
  const body = $("article").length > 0 ? $("article") : $("main").length > 0 ? $("main") : $("body");
  const text = plainText(body.html() ?? "").split("\n").map((line) => line.replace(/\s+/g, " ").trim()).join("\n").replace(/\n{3,}/g, "\n\n").trim(); // prettier-ignore
  notes.push("This page marks no recipe; its text is read as it stands, with what else is on it.");
  return { found: text === "" ? [] : severalIn(text.slice(0, 100_000), shelf), notes };
}
