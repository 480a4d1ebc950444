/** Signs of a written step by how they are said. */
const said: [RegExp, string][] = [
  [/(\d)\s*–\s*(\d)/g, "$1 to $2"],
  [/(\d)\s*°\s?C\b/g, "$1 degrees"],
  [/(\d)\s*g\b/g, "$1 grams"],
  [/(\d)\s*kg\b/g, "$1 kilograms"],
  [/(\d)\s*mL\b/gi, "$1 millilitres"],
  [/(\d)\s*min\b/g, "$1 minutes"],
  [/(\d)\s*mm\b/g, "$1 millimetres"],
  [/(\d)\s*cm\b/g, "$1 centimetres"],
  [/(\d)\s*%/g, "$1 percent"],
  [/(?<![.\d])1 (gram|minute|degree|kilogram)s\b/g, "1 $1"],
  [/(\d)\.(\d)/g, "$1 point $2"],
  [/;/g, ","],
];

/** A step as one says it aloud: grams, degrees and minutes by their words. */
export const spokenWords = (words: string): string =>
  said.reduce((text, [sign, word]) => text.replace(sign, word), words.replace(/\u00a0/g, " "));
