import { readRecipe } from "../packages/core/src";
import { readTemperatures } from "../packages/core/src/measure/oven-text";
import { plainText } from "../packages/core/src/measure/grammar/tokens";
(globalThis as any).DBG = 1;
console.log(readTemperatures(plainText(process.argv[2] ?? "")));
const r = readRecipe(process.argv[2] ?? "");
console.log(r.lines.map((l) => [l.role, l.state, l.name, l.grams?.mid]), r.oven);
