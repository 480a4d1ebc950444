import type { Elsewhere } from "./elsewhere-words";

/** What a text cooks by that is no oven and no plate, by the words of one sentence; the batter, not something that is melted or boiled for it. */
const heats: [Elsewhere, RegExp][] = [
  ["deep-fry", /\bdeep[ -]?fr(?:y|ied|ying)\b|\bdeep[ -]fat\b|\b(?:fry|fried|lower|slide|drop)\b[^.]{0,40}\b(?:in|into) (?:the )?(?:hot |deep |plenty of |vegetable |sunflower |\d+ ?cm of )*(?:oil|fat)\b[^.]{0,30}(?:\bat\b|\d{3}|\bminutes?\b|\bgolden\b)|\b(?:oil|fat) (?:at|to) 1[5-9]\d\b/i],
  ["microwave", /\bmicrowave\b/i],
  ["waffle-iron", /\bwaffle[ -]?(?:iron|maker|plate)s?\b/i],
  ["slow-cooker", /\b(?:slow|multi|rice)[ -]?cooker\b|\bcrock[ -]?pot\b/i],
  ["bread-machine", /\bbread[ -]?(?:machine|maker)\b|\bgluten-free programme\b/i],
  ["fire", /\b(?:barbecue|bbq|kamado|camp ?fire|embers|kettle grill|wood[ -]fired)\b/i],
  ["steam", /\bsteam(?:er|ing|ed)?\b(?=[^.]*\b(?:hours?|min(?:ute)?s?|h)\b)|\bin a (?:bamboo )?steamer\b|\bpudding basin\b|\bpressure cook\w*\b/i],
  ["simmer", /\b(?:dumplings?|spoonfuls?|balls|drop them)\b[^.]*\b(?:simmering|boiling|poach\w*|stew|broth|soup|salted water)\b|\bpoach(?:ed)?\b[^.]*\bmin/i],
]; // prettier-ignore
/** Beside it something is made ready, and no bake is cooked. */
const madeReady = /\b(?:melt|soften|warm(?:ed)? (?:the|through)|butter|chocolate|defrost|reheat|milk)\b/i;
const steamInOven =
  /\b(?:tray|dish|pan|bowl|cup|ice)\b[^.]{0,24}\b(?:water|cubes)\b|\bfor steam\b|\bsteam (?:oven|escape|vent)|\buntil (?:it )?steam|\blet the steam\b/i;
const baked = /\b(?:oven|bak(?:e[sd]?|ing)(?! ?(?:powder|soda)))\b/i;

/** The heat of a method that is none of those that are computed; null where it is baked, fried flat or where nothing is said. */
export function elsewhereIn(sentences: readonly string[]): Elsewhere | null {
  const isBaked = sentences.some(
    (sentence) =>
      baked.test(sentence) &&
      !heats.some(([, words]) => words.test(sentence) && !madeReady.test(sentence) && !steamInOven.test(sentence)),
  );
  for (const [heat, words] of heats)
    for (const sentence of sentences) {
      if (!words.test(sentence)) continue;
      if ((heat === "microwave" && (isBaked || madeReady.test(sentence))) || (heat === "steam" && (isBaked || steamInOven.test(sentence)))) continue; // prettier-ignore
      // “On the barbecue at 200 °C”, “bread machine, then the oven”: what else is told does not undo these.
      return heat;
    }
  return null;
}
