import type { Analysis, Finding, InputLine, Proposal } from "../src/index";

/** A formula as a case sends it, with what it must not touch. */
interface Given {
  id: string;
  kind: string;
  lines: { ingredientId: string; grams: number }[];
  locked?: string[];
  avoid?: string[];
  onHand?: string[];
  why?: string;
}
type Change = Record<string, [number, number]>;

/** The form of the cases: patterns are regular expressions on ingredient ids, `some` the g by which what matches changes. */
interface Rules {
  first?: number;
  some?: Change | Change[];
  never?: string[];
  locked?: string[];
  changesMax?: number;
  has?: string[];
  hasNot?: string[];
}
export interface SwapCase extends Given {
  replace: string;
  with?: string;
  want: Rules & { noNewCaution?: boolean; noZeroLines?: boolean; lost?: boolean; firstAdds?: string };
}
export interface BalanceCase extends Given {
  want: Rules & { proposalsMin?: number; clears?: string[]; quiet?: boolean; after?: Change; flourChangePercentMax?: number };
}
export interface FindingCase extends Given {
  want: Pick<Rules, "has" | "hasNot"> & { worst?: keyof typeof grave; atLeast?: keyof typeof grave; fixHolds?: string };
}

/** Who is asked: the core, or a server over the wire. */
export interface Adviser {
  analyse: (body: object) => Promise<Pick<Analysis, "findings">>;
  balance: (body: object) => Promise<{ proposals: Proposal[]; conflict?: { message: string } }>;
  swap: (body: object) => Promise<{ proposals: Proposal[] }>;
}

const grave = { none: 0, note: 1, caution: 2, stop: 3 };

const given = ({ kind, lines, locked, avoid, onHand }: Given): object => ({
  kind,
  lines,
  ...(locked ? { locked } : {}),
  ...(avoid ? { avoid } : {}),
  ...(onHand ? { onHand } : {}),
});
const atLeast = (findings: readonly Finding[], severity: keyof typeof grave): Set<string> =>
  new Set(findings.filter((f) => grave[f.severity] >= grave[severity]).map(({ id }) => id));

const gramsOf = (line: InputLine): number => ("grams" in line && typeof line.grams === "number" ? line.grams : 0);

/** g by which each ingredient changes from the lines that were sent to those of a proposal; never taken from what it says of itself. */
function changesOf(before: readonly InputLine[], after: readonly InputLine[]): Map<string, number> {
  const by = new Map<string, number>();
  const add = (lines: readonly InputLine[], sign: number): void => {
    for (const line of lines)
      if (line.ingredientId) by.set(line.ingredientId, (by.get(line.ingredientId) ?? 0) + sign * gramsOf(line));
  };
  add(after, 1);
  add(before, -1);
  return new Map([...by].filter(([, grams]) => Math.abs(grams) > 0.04));
}

const matching = (changes: Map<string, number>, pattern: string): number =>
  [...changes].reduce((all, [id, by]) => all + (new RegExp(pattern).test(id) ? by : 0), 0);

function missed(changes: Map<string, number>, some: Rules["some"]): string[] {
  const choices = [some ?? {}].flat().map((choice) =>
    Object.entries(choice).flatMap(([pattern, [low, high]]) => {
      const by = matching(changes, pattern);
      return by >= low - 0.05 && by <= high + 0.05 ? [] : [`${pattern} by ${by.toFixed(1)}, wanted ${low} to ${high}`];
    }),
  );
  return choices.sort((a, b) => a.length - b.length)[0] ?? [];
}

/** What no proposal may do: bring what is barred, move what is locked, leave a line of nothing. */
function broken(test: Given, want: Rules, changes: Map<string, number>, lines: readonly InputLine[], leaving?: string): string[] {
  const out: string[] = [];
  for (const pattern of want.never ?? [])
    for (const [id, by] of changes) if (by > 0.05 && new RegExp(pattern).test(id)) out.push(`adds ${by.toFixed(1)} g ${id}`);
  for (const id of [...(want.locked ?? []), ...(test.locked ?? [])])
    if (id !== leaving && Math.abs(changes.get(id) ?? 0) > 0.05) out.push(`moves the locked ${id}`);
  if (lines.some((line) => !(gramsOf(line) > 0))) out.push("has a line of nothing");
  return out;
}

const unsaid = (findings: readonly Finding[], { has = [], hasNot = [] }: Pick<Rules, "has" | "hasNot">): string[] => {
  const ids = new Set<string>(findings.map(({ id }) => id));
  return [
    ...has.filter((id) => !ids.has(id)).map((id) => `${id} is not said`),
    ...hasNot.filter((id) => ids.has(id)).map((id) => `${id} is said`),
  ];
};

/** One of the first proposals must be right in all, and each of them must break nothing; otherwise what is wrong. */
async function judgeProposals(
  test: Given,
  want: Rules,
  proposals: readonly Proposal[],
  faultsOf: (proposal: Proposal, changes: Map<string, number>) => Promise<string[]>,
  leaving?: string,
): Promise<string | null> {
  const hard: string[] = [];
  const soft: string[][] = [];
  for (const proposal of proposals.slice(0, want.first ?? 3)) {
    const changes = changesOf(test.lines, proposal.lines);
    hard.push(...broken(test, want, changes, proposal.lines, leaving).map((rule) => `“${proposal.title}” ${rule}`));
    const many = want.changesMax !== undefined && changes.size > want.changesMax ? [`${changes.size} things change`] : [];
    soft.push([...missed(changes, want.some), ...many, ...(await faultsOf(proposal, changes))]);
  }
  if (hard.length > 0) return hard.join("; ");
  const [best] = soft.sort((a, b) => a.length - b.length);
  return best && best.length === 0 ? null : (best ?? ["no proposal"]).join("; ");
}

export async function judgeSwap(test: SwapCase, ask: Adviser): Promise<string | null> {
  const { want } = test;
  const { proposals } = await ask.swap({ ...given(test), replace: test.replace, ...(test.with ? { with: test.with } : {}) });
  const before = atLeast((await ask.analyse(given(test))).findings, "caution");
  const [first] = proposals;
  if (want.firstAdds && !(first && matching(changesOf(test.lines, first.lines), want.firstAdds) > 0))
    return `the first is “${first?.title ?? "nothing"}”, wanted ${want.firstAdds}`;
  return judgeProposals(
    test,
    want,
    proposals,
    async (proposal) => {
      const { findings } = await ask.analyse({ ...given(test), lines: proposal.lines });
      const fresh = want.noNewCaution ? [...atLeast(findings, "caution")].filter((id) => !before.has(id)) : [];
      const still = want.noZeroLines && proposal.lines.some(({ ingredientId }) => ingredientId === test.replace);
      return [
        ...fresh.map((id) => `brings ${id}`),
        ...(want.lost && !(proposal.lost && proposal.lost.length > 0) ? ["does not say what is lost"] : []),
        ...(still ? [`${test.replace} is still there`] : []),
        ...unsaid(findings, want),
      ];
    },
    test.replace,
  );
}

const isFlourId = (id: string): boolean =>
  /-(?:flour|starch)$|^gf-blend|^arrowroot$|^cornmeal$|^masa-harina$|^rolled-oats$/.test(id);

export async function judgeBalance(test: BalanceCase, ask: Adviser): Promise<string | null> {
  const { want } = test;
  const { proposals, conflict } = await ask.balance(given(test));
  if (want.quiet) return proposals.length === 0 && !conflict ? null : `said “${proposals[0]?.title ?? conflict?.message ?? ""}”`;
  if (proposals.length < (want.proposalsMin ?? 1)) return `${proposals.length} proposals${conflict ? `; ${conflict.message}` : ""}`;
  const before = (await ask.analyse(given(test))).findings;
  const flour = test.lines.reduce((g, line) => g + (isFlourId(line.ingredientId) ? line.grams : 0), 0);
  return judgeProposals(test, want, proposals, async (proposal, changes) => {
    const { findings } = await ask.analyse({ ...given(test), lines: proposal.lines });
    const ids = new Set<string>(findings.map(({ id }) => id));
    const fresh = [...atLeast(findings, "stop")].filter((id) => !atLeast(before, "stop").has(id));
    const moved = [...changes].reduce((g, [id, by]) => g + (isFlourId(id) ? by : 0), 0);
    const most = want.flourChangePercentMax ?? 15;
    return [
      ...(want.clears ?? []).filter((id) => ids.has(id)).map((id) => `leaves ${id}`),
      ...fresh.map((id) => `brings ${id}`),
      ...(flour > 0 && Math.abs(100 * moved) > (most + 0.1) * flour ? [`flour by ${Math.round((100 * moved) / flour)} %`] : []),
      ...unsaid(findings, want),
    ];
  });
}

const amount = String.raw`([\d.]+) (kg|g)(?: \([^)]*\))?`;
/** The plain forms of a step that names an amount, and what comes of the grams that are there. */
const steps: [RegExp, (now: number, grams: number) => number][] = [
  [new RegExp(`^add ${amount} of (?:the )?(.+)`, "i"), (now, grams) => now + grams],
  [new RegExp(`^hold back ${amount} of the (.+)`, "i"), (now, grams) => now - grams],
  [new RegExp(`^use ${amount} of (.+?) instead of`, "i"), (_, grams) => grams],
  [new RegExp(`^drop the (.+?) to ${amount}`, "i"), (_, grams) => grams],
  [/^leave the (.+) out/i, () => 0],
];

/** The first way of a fix, followed to the letter; null where it holds a step that is none of the plain forms. */
export function followed(fix: string, lines: Given["lines"], idOf: (name: string) => string | undefined): Given["lines"] | null {
  const [way = ""] = fix.replace(/\.$/, "").split(/, or |[.;] /);
  let out: Given["lines"] = lines;
  for (const step of way.split(" and ")) {
    const form = steps.find(([pattern]) => pattern.test(step));
    const parts = form?.[0].exec(step)?.slice(1) ?? [];
    const at = parts.findIndex((part) => /^[\d.]+$/.test(part));
    const grams = at < 0 ? 0 : Number(parts[at]) * (parts[at + 1] === "kg" ? 1000 : 1);
    const name = parts.find((_, i) => at < 0 || (i !== at && i !== at + 1)) ?? "";
    const id = idOf(name.split(",")[0]?.trim() ?? "");
    if (!form || !id) return null;
    const has = out.some((line) => line.ingredientId === id);
    out = has
      ? out.map((line) => (line.ingredientId === id ? { ...line, grams: form[1](line.grams, grams) } : line))
      : [...out, { ingredientId: id, grams: form[1](0, grams) }];
  }
  return out.filter((line) => line.grams > 0);
}

export async function judgeFinding(
  test: FindingCase,
  ask: Adviser,
  idOf: (name: string) => string | undefined,
): Promise<string | null> {
  const { want } = test;
  const { findings } = await ask.analyse(given(test));
  const out = unsaid(findings, want);
  for (const finding of findings)
    if (want.worst && grave[finding.severity] > grave[want.worst]) out.push(`${finding.id} is a ${finding.severity}`);
  if (want.atLeast && !findings.some((f) => want.has?.includes(f.id) && grave[f.severity] >= grave[want.atLeast ?? "none"]))
    out.push(`nothing of ${want.has?.join("+") ?? ""} is as grave as ${want.atLeast}`);
  const finding = want.fixHolds ? findings.find(({ id }) => id === want.fixHolds) : undefined;
  if (want.fixHolds) {
    const lines = finding?.fix ? followed(finding.fix, test.lines, idOf) : null;
    if (!lines) out.push(`no fix of ${want.fixHolds} can be followed: “${finding?.fix ?? ""}”`);
    else {
      const after = (await ask.analyse({ ...given(test), lines })).findings;
      const had = atLeast(findings, "caution");
      const fresh = [...atLeast(after, "caution")].filter((id) => !had.has(id));
      if (after.some(({ id }) => id === want.fixHolds)) out.push(`the fix leaves ${want.fixHolds}: “${finding?.fix ?? ""}”`);
      out.push(...fresh.map((id) => `the fix of ${want.fixHolds ?? ""} brings ${id}`));
    }
  }
  return out.length > 0 ? out.join("; ") : null;
}
