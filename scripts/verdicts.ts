import { analyse, type AnalyseInput, type WeighedLine } from "@uprise/core";
import table from "./verdicts.json";

/** A formula of our own with what a good baker would say of it, written down before it was analysed. */
interface Case extends AnalyseInput {
  name: string;
  baker: string;
  /** Findings that the baker's words amount to; none for a formula in order. */
  faults: string[];
  lines: WeighedLine[];
}

let agreed = 0;
console.log("| formula | a good baker | computed | agree |\n| --- | --- | --- | --- |");
for (const { name, baker, faults, ...input } of table as unknown as Case[]) {
  const { findings } = analyse(input);
  const grave = findings.filter((f) => f.severity !== "note").map((f) => f.id as string);
  const said = findings.map((f) => f.id as string);
  const agree =
    faults.length === 0 ? grave.filter((id) => !id.startsWith("pan-")).length === 0 : faults.every((id) => said.includes(id));
  if (agree) agreed++;
  console.log(
    `| ${name} | ${baker} | ${[...new Set(said.filter((id) => !id.startsWith("pan-") && id !== "oats-check"))].join(", ") || "in order"} | ${agree ? "yes" : "NO"} |`,
  );
}
console.log(`\n${agreed} of ${table.length} agree`);
