import type { Component } from "./reading-schema";

/** Which part of a text a line stands in, and what kind of line it is by its words alone. */
export type Section = "start" | "ingredients" | "method" | "notes";

export const ingredientsHeading =
  /^(?:the\s+)?(?:ingredients?|you(?:'ll| will)? need|what you(?:'ll)? need|shopping list|what goes in(?:to it)?|stuff)\b[^.\d(]{0,30}(?:\([^)]{0,40}\))?\s*:?$/i;
export const methodHeading =
  /^(?:the\s+)?(?:method|instructions?|directions?|preparation|steps|procedure|making it|to make|how(?: to(?: make)?\b.*)?|what (?:to|you) do|what you(?:'ll| will) do|(?:how|the way) (?:i|we|you) (?:do|make|bake) (?:it|them|this)|here(?:'|’)?s how|baking)\s*:?$/i;
export const notesHeading =
  /^(?:notes?|comments?|reviews?|replies|questions?|q ?& ?a|tips?|storage|nutrition\b.*|(?:amounts? )?per (?:serving|portion|100 ?g)\b.*|amount per serving.*|variations?|equipment|to store|good to know|hints?)\s*:?$/i;

const meta =
  /^(?:serves|makes|yields?|servings?|portions?|prep(?:aration)?(?: time)?|cook(?:ing)?(?: time)?|bak(?:e|ing)(?: time)|total(?: time)?|time|difficulty|oven|temperature|tin|pan|source|author|from|hands-on|active|ready in|keeps|storage|storing|to store|freezing|shelf life|tips?|notes?)\b\s*[:\d-]/i;
const stepVerb =
  /^(?:then\s+|now\s+|meanwhile,?\s+|next,?\s+|first,?\s+|finally,?\s+|gently\s+|carefully\s+|slowly\s+)?(?:pre-?heat|heat|mix|whisk|stir|add|bake|pour|combine|beat|fold|line|grease|butter and|butter (?:a|the|your)|oil (?:a|the|your)|leave|let|cool|remove|place|put|spoon|scrape|scoop|transfer|divide|cut|turn|serve|sprinkle|rub|cream (?:the|butter|together|\d)|melt|blend|sift|make|in an?|using|use|knead|shape|roll|rest|allow|set|take|bring|drop|brush|toss|prick|scatter|drizzle|roast|toast|bash|fry|flip|flatten|crush|dip|tie|steam(?!ed)|soak|store|enjoy|slice|check|test|once|when|while|if|until|after|with|warm|boil|simmer|chill|pop|spread|pat|press|drain|rinse|grate|chop|peel|dust|tip|work|heap|fill|start|wait|don't|do not|keep|wrap|freeze|cover|uncover|lift|stand|try|eat|we|it|this|these|they)\b/i;
const cupsThatAreMeant = /^(?:cups|measures|all (?:cups|spoons))\b/i;

/** Whether a line names something that is baked. */
export const namesABake = (plain: string): boolean =>
  /\b(?:loaf|loaves|bread|muffins?|scones?|biscuits?|cookies?|cakes?|cornbread|buns?|rolls?|bars?|brownies?|blondies?|pancakes?|waffles?|crackers?|flatbreads?|tray ?bake|gingerbread|parkin|flapjacks?|farls?)\b/i.test(
    plain,
  );

export const isHeading = (plain: string): boolean =>
  ingredientsHeading.test(plain) || methodHeading.test(plain) || notesHeading.test(plain);
/** What a list adds up to, which is nothing that goes into it. */
const sumOfAll =
  /\b(?:all (?:the |of the )?(?:flours?|starches|dry|liquids?|ingredients)|flours? (?:and starch(?:es)?|in all|together))\b[^.\d]{0,30}\b(?:makes?|together|are|is|come to|add up to|total|=)|^(?:total|sum|altogether|in all|batch weight|dough weight|batter weight)\b/i;
/** What readers say of a recipe, and what a baker means to do another time. */
const besides = /\b\d[\d,.]*\s+(?:reviews?|ratings?|votes|comments)\b|^(?:next time|last time|note to self|n\.?b\.?|p\.?s\.?)\b/i;
export const isMeta = (plain: string): boolean =>
  meta.test(plain) || besides.test(plain) || cupsThatAreMeant.test(plain) || sumOfAll.test(plain);
/** "drizzle: juice of both lemons": a part by its name, whatever the word does elsewhere. */
const partByVerb = /^(?:drizzle|glaze|top|dust|crumble|ice|fill|soak|coat)\s*:\s+\S/i;
export const beginsAStep = (plain: string): boolean => stepVerb.test(plain) && !partByVerb.test(plain);

/** Roles by the words of a heading or a purpose; the first that fits. */
const roleWords: [RegExp, Component["role"]][] = [
  [/\b(?:batter|dough|cake|muffins?|scones?|loaf|bread|base|sponge|biscuits?|buns?|cornbread|pancakes?|dry|wet|main)\b(?!.*\b(?:topping|filling|glaze|icing|frosting|crumble|streusel|swirl)\b)/i, "batter"],
  [/\b(?:soaker|soak|soaking|soaked)\b/i, "soaker"],
  [/\b(?:paste|praline|frangipane)\b/i, "paste"],
  [/\b(?:filling|fill|swirl|jam layer|layers?|centre|center|middle)\b/i, "filling"],
  [/\b(?:glaze|icing|frosting|drizzle|wash|egg wash|syrup|brush(?:ing)?|coating|brushed)\b/i, "glaze"],
  [/\b(?:topping|tops?|crumble|streusel|crust|decorat\w+|garnish|finish(?:ing)?|sprinkl\w+|dust(?:ing)?|crumb topping)\b/i, "topping"],
  [/\b(?:sauce|compote|custard|gravy|dip|chutney|jam|preserve|curd)\b/i, "sauce"],
  [/\b(?:serv(?:e|ing)|table|side)\b/i, "serve"],
  [/\b(?:tin|pan|skillet|greasing|tray|dusting the)\b/i, "pan"],
]; // prettier-ignore

const partHeading = /^(?:for\s+|to make\s+)?(?:the\s+)?([\p{L}' -]{3,44}?)\s*(?:\([^)]*\))?\s*:?$/iu;

/** Last words of a heading that stands alone: the part is named, nothing is measured. */
const partAlone =
  /^(?:(?:and|then|now|first|next),?\s+)*(?:for\s+)?(?:the\s+)?(?:[\p{L}'&-]+\s+){0,3}?(?:batter|dough|glaze|toppings?|tops?|fillings?|layers?|crumble|icing|frosting|streusel|drizzle|swirl|soaker|egg wash(?: and top)?|for (?:brushing|dusting|the tops?|rolling))[.:]?$/iu;
const wholeAlone =
  /^(?:(?:and|then|now|first|next),?\s+)*(?:the\s+)?(?:[\p{L}'-]+\s+)?(?:muffins?|scones?|loaf|loaves|buns?|bars|cornbread|pancakes|pikelets|drop scones|shortcakes?|sponge|farls?|teabread)[.:]?$|^(?:the\s+)?cakes?[.:]?$/iu;

/** “Filling 2:” is the second of its name. */
const numbered = /^(.*\p{L})\s+(?:no\.?\s*)?(\d{1,2})\s*:$/u;

/** The component that a heading opens, or null where it is none. A heading ends in a colon, or begins with “for the”. */
export function componentOf(plain: string, colon: boolean): { name: string; role: Component["role"]; unsure?: true } | null {
  const [, first, number] = numbered.exec(plain) ?? [];
  if (first !== undefined && number !== undefined) {
    const opened = componentOf(`${first}:`, true);
    return opened && !opened.unsure ? { ...opened, name: `${opened.name} ${number}` } : null;
  }
  const said = plain.replace(/[.]$/, "");
  if (partAlone.test(said) || wholeAlone.test(said)) {
    const name = said.replace(/^(?:(?:and|then|now|first|next|for|the),?\s+)+/i, "").replace(/:$/, "");
    const role = wholeAlone.test(said) ? "batter" : (roleWords.find(([pattern]) => pattern.test(name))?.[1] ?? "topping");
    return { name, role };
  }
  const match = partHeading.exec(plain);
  if (!match?.[1]) return null;
  const forThe = /^(?:for|to)\s/i.test(plain);
  const role = roleWords.find(([pattern]) => pattern.test(plain))?.[1];
  const words = match[1].trim().split(/\s+/).length;
  // “For the pears”: what it is shows when the batter has a heading of its own.
  if (!role) return forThe && colon ? { name: match[1].trim(), role: "batter", unsure: true } : null;
  const only =
    /^(?:the\s+)?(?:[\p{L}'-]+\s+){0,3}(?:batter|dough|glaze|topping|filling|crumble|icing|frosting|streusel|decoration|dry|wet|dry ingredients|wet ingredients|soaker|swirl|drizzle|the finish)\s*:?$|^to (?:serve|finish)\s*:?$/iu;
  return forThe || (colon && words <= 5) || only.test(plain) ? { name: match[1].trim(), role } : null;
}
