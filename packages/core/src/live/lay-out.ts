import { CoreError } from "../errors";
import type { Formula } from "../formula/formula";
import { type Kitchen, openFormula } from "../formula/open";
import { openParts, partAsFormula } from "../formula/open-part";
import type { BakeRecord } from "./events-schema";
import { readyForCounter } from "./expected";

/** Which bake is to be laid out: of what, in which oven, for which day; `partId` says which part of a split batter, absent the first, which mixes it. */
export interface BakeAsked extends Pick<
  BakeRecord,
  "formulaId" | "formulaVersion" | "planId" | "planBakeId" | "batch" | "ovenId" | "rehearsal"
> {
  formula: Formula;
  title?: string | undefined;
  partId?: string | undefined;
  /** How long that very oven takes to heat, minutes. */
  warmMinutes?: number | undefined;
}

const LONGEST_TITLE = 160;

/** A bake as it is laid out for the counter: the formula as it stands, its steps, what its oven should do. Throws as `readings`, and where the batter has no such part. */
export function laidOut({ formula, title, partId, warmMinutes, ovenId, batch, ...of }: BakeAsked, kitchen: Kitchen): BakeRecord {
  const own: Formula = ovenId === undefined ? formula : { ...formula, oven: { ...formula.oven, ovenId } };
  const whole = openFormula(own, kitchen);
  const named = (own.parts ?? []).filter(({ share }) => share > 0);
  const part = partId === undefined ? named[0] : named.find(({ id }) => id === partId);
  if (partId !== undefined && !part)
    throw new CoreError("unknown-part", `“${formula.title}” has no part "${partId}"${named.length > 0 ? `; one of ${named.map(({ id }) => id).join(", ")} would be right` : ""}.`, "partId"); // prettier-ignore
  const parts = part ? openParts(own, kitchen) : [];
  const opened = parts.find(({ id }) => id === part?.id);
  const { steps, expected } =
    part && opened
      ? readyForCounter(opened.input, kitchen.shelf, warmMinutes, { whole, parts, partId: part.id })
      : readyForCounter(whole, kitchen.shelf, warmMinutes);
  const many = batch !== undefined && batch > 1 ? `, batch ${batch}` : "";
  return {
    title: `${title ?? `${formula.title}${many}`}${part ? `, ${part.name}` : ""}`.slice(0, LONGEST_TITLE),
    ...of,
    formula: part ? partAsFormula(own, part) : own,
    steps,
    expected,
    ...(part
      ? {
          // The first mixes for all, and says which are left.
          part:
            part === named[0]
              ? { id: part.id, others: named.slice(1).map(({ id, name }) => ({ id, name })), whole: own }
              : { id: part.id, others: [] },
        }
      : {}),
    ...(batch === undefined ? {} : { batch }),
    ...(own.oven.ovenId === undefined ? {} : { ovenId: own.oven.ovenId }),
  };
}
