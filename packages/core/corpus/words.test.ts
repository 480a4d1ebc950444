import { readFileSync } from "node:fs";
import { join } from "node:path";

const root = join(__dirname, "..", "..", "..");
const rows = readFileSync(join(root, "docs/words.md"), "utf8")
  .split("\n")
  .flatMap((line) => {
    const [, word, mean, name, file] = /^\|\s*([^|]+?)\s*\|\s*([^|]+?)\s*\|\s*`(\w+)`\s*\|\s*`([^`]+)`\s*\|$/.exec(line) ?? [];
    return word && mean && name && file ? [{ word, mean, name, file }] : [];
  });

test("every word of the glossary is exported where it says, and no word stands there twice", () => {
  expect(rows.length).toBeGreaterThanOrEqual(40);
  const gone = rows.filter(({ name, file }) => {
    const code = readFileSync(join(root, "packages/core/src", file), "utf8");
    return !new RegExp(`^export (?:const|function|interface|type|class) ${name}\\b`, "m").test(code);
  });
  expect(gone).toEqual([]);
  expect(new Set(rows.map(({ word }) => word)).size).toBe(rows.length);
});
