import { unitMm } from "./grammar/lengths";
import { value } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";

const pieceNames =
  "(?:small |large |even |equal |flat |round |rough |generous |neat )*(?:muffins?|scones?|biscuits?|buns?|rolls?|loaves|loaf|wedges|pieces|slices|squares|fingers|sticks|batons|chunks|cubes|diamonds|bites|bars|cakes?|cupcakes?|cookies|spoonfuls|mounds|balls|patties|heaps?|dollops?|pancakes?|crackers?|flatbreads?|portions|rounds|farls|discs|triangles|griddle cakes?|pcs)";

/** How many pieces a text speaks of: "cut into 8 wedges", "makes 12 muffins". */
export function piecesIn(source: string): number | null {
  const text = plainText(source);
  const trays = new RegExp(`\\b([\\w-]+)\\s+(?:trays|tins|batches|rounds)\\s+of\\s+([\\w-]+)\\s+${pieceNames}\\b`, "i").exec(text);
  const [batches, each] = [wholeIn(trays?.[1]), wholeIn(trays?.[2])];
  if (batches !== null && each !== null) return batches * each;
  const verb = new RegExp(
    `\\b(?:makes?|yields?:?|gives?|quantity:?|qty:?|into|(?:shape|form|roll|pat|press|divide|split)(?: it| them| the \\w+)? into|shape|form|drop|cut (?:it |them |the \\w+ )?(?:into|in)|cut(?: out)?|for|scoop|about)\\s+(?:about |around |roughly |approx(?:imately)? )?([\\w-]+(?: [\\w-]+)?)\\s+${pieceNames}\\b`,
    "i",
  ).exec(text);
  // "you'll get around 11", "so you have 25 bars", "Batch = 32"
  const had = /\b(?:you(?:'ll| will| should)?|will|should|to) (?:get|have|end up with)\s+(?:about |around |roughly )?(\d{1,3}|\w+teen|ten|eleven|twelve|twenty)\b(?!\s*(?:g|ml|cm|mm|min|hour|%|°))|^\s*(?:batch|yield|qty|quantity)\s*[:=]\s*(\d{1,3})\b(?!\s*(?:g|kg|ml|x|×|of)\b)/i.exec(text); // prettier-ignore
  // "cut 8 x 6 cm rounds"
  const stamped = /\b(?:cut|stamp|punch)\w*(?: out)? (\d{1,3}) [x×] \d+(?:\.\d+)?\s*(?:cm|mm|in(?:ch)?)\s+(?:rounds|squares|circles|discs)\b/i.exec(text); // prettier-ignore
  const byVerb = wholeIn(stamped?.[1]) ?? wholeIn(verb?.[1]) ?? wholeIn(had?.[1] ?? had?.[2]);
  if (byVerb !== null) return byVerb;
  // "Makes 8", with nothing behind it.
  const counted =
    /\b(?:makes?|yields?)\s*:?\s*(?:about |around )?(\w+(?:[- ]\w+)??)\s*(?:[.,;|)]|$|(?=\b(?:prep|cook|bak(?:e|ing)|serves|ready|total|takes)\b))/i.exec(
      text,
    )?.[1] ??
    /\b(?:cut|split|divide) (?:it |them |each |the \w+ )?(?:into|in) (\w+)\s*(?:[.,;]|and\b|$)/i.exec(text)?.[1] ??
    new RegExp(`^\\s*([\\w-]+)\\s+(?:mini |jumbo )?${pieceNames}(?:\\s*,|\\s+or\\b|\\s*$)`, "i").exec(text)?.[1] ??
    // "Scones, 24 pcs", "Muffins (12 pièces)", "fills a tin, 16 bars)", "12 cases."
    /(?:^|[(,.;=-])\s*(?:ca\.?\s*|about )?(\d{1,3})\s*(?:pieces|pcs?|pièces|stücke?|stk|pezzi|pz|piezas|unidades|portions?|cases|holes|bars|squares|wedges|muffins|scones|buns|rolls)\s*(?:[).,;@]|of \d|$)/iu.exec(
      text,
    )?.[1] ??
    // "2 lb x 6 tins", "12 at ~75 g"
    /[x×]\s*(\d{1,2})\s*(?:tins|pans|loaves|trays|cases)\b|(?:^|[.;]\s*)(\d{1,3})\s*(?:at|@|of|x)\s*~?\d{2,3}\s?g\b/i
      .exec(text)
      ?.slice(1)
      .find((one) => one !== undefined) ??
    // "cuts 24", "12 per batch", "Abt 16."
    /\bcuts (\d{1,3})\b(?!\s*(?:cm|mm|in|g|x)\b)|(?<![\d.,/])(\d{1,3}) (?:per|a|each) (?:x1|batch|mix|tray|dough)\b|(?:^|[.;]\s)\s*(?:abt|about|approx)\.? (\d{1,3})\s*\.?\s*$/i
      .exec(text)
      ?.slice(1)
      .find((one) => one !== undefined) ??
    // "a baker's dozen", "yield 2 dozen", with or without what they are
    /\b(?:makes?|yields?|gives?|gets?)\s*:?\s*(?:about |around )?((?:\w+ )?(?:baker's )?dozen(?: and a half)?)\b/i.exec(
      text,
    )?.[1] ??
    // "roll into 22 g balls, about 30", "with a 60 ml scoop, 14 of them"
    /\b\d+\s?(?:g|ml|oz)\s+(?:balls|pieces|scoops?|portions|rounds|mounds|heaps|buns)\b[^.;]{0,12}?,\s*(?:about |around |makes )?(\d{1,3})(?: of (?:them|these))?\s*(?:[.;]|$)/i.exec(
      text,
    )?.[1] ??
    // "14 muffins' worth"
    new RegExp(`\\b(\\d{1,3})\\s+${pieceNames}'\\s+worth\\b`, "i").exec(text)?.[1] ??
    // "per tray of 16", "portion 48"
    /\b(?:tray|batch) of (\d{1,3})\s*(?:[).,;]|$)|\bportion(?:ed)?(?: (?:into|in))? (\d{1,3})\b(?!\s*(?:g|ml|kg|k?cal|kj|%)\b)/i
      .exec(text)
      ?.slice(1)
      .find((one) => one !== undefined) ??
    // "Carrot loaf x4"
    new RegExp(`\\b${pieceNames}\\s*[x×]\\s*(\\d{1,3})\\s*[:.]?\\s*$`, "i").exec(text)?.[1];
  return wholeIn(counted);
}

/** A whole number of pieces that some words say. */
function wholeIn(words: string | undefined): number | null {
  const tokens = tokensOf(words ?? "");
  const found = value(tokens, 0);
  // "cut 6 cm rounds" says no number of them.
  const behind = found && tokens[found.next]?.text === "-" ? found.next + 1 : (found?.next ?? 0);
  if (found && (unitMm(tokens[behind]) !== null || /^(?:g|kg|oz|ml)$/.test(tokens[found.next]?.lower ?? ""))) return null;
  return found && Number.isInteger(found.value) && found.value >= 1 && found.value <= 500 ? found.value : null;
}
