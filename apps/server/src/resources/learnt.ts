import { forBakers } from "../access/roles";
import { acceptedSchema, type LearntAnswer, learntAnswerSchema, type OvenProfile } from "@uprise/contract";
import { builtInShelf, type Ingredient, type Learnt, nestedIds, scaled, type Seen, type Trial } from "@uprise/core";
import type { Computer } from "../compute/pool";
import type { LoggedTrial } from "../compute/tasks";
import { Refusal } from "../errors";
import type { Store } from "../store/store";
import { z } from "zod";
import { type App, problems } from "../wire";
import { entriesFor } from "./kitchen-data";

/** What was accepted, and what stood there before, so that it can be undone. */
interface Accepted {
  learnt: Learnt;
  before: { oven?: OvenProfile; ingredient?: Ingredient | null };
}

/** Bakes that went plainly wrong otherwise teach nothing of the oven. */
const SPOILT: readonly Seen["symptomId"][] = ["overflowed", "dense", "batter-too-thick", "batter-too-thin", "sunk-middle"];
const MOST_TRIALS = 60;
const tags = ["log"];

/** What logged bakes tell of this kitchen: shown first, accepted or not, undone. */
export function learntRoutes(app: App, store: Store, computer: Computer): void {
  const accepted = store.things<Accepted>("learnt");
  const ovens = store.things<OvenProfile>("ovens");
  const ingredients = store.things<Ingredient>("ingredients");

  async function learn(): Promise<LearntAnswer> {
    const [rows, taken, own, profiles] = await Promise.all([
      store.things<Trial>("trials").list(),
      accepted.list(),
      ingredients.list(),
      ovens.list(),
    ]);
    const since = new Map(taken.map(({ id, createdAt }) => [id, createdAt]));
    const trials = rows
      .sort((a, b) => Date.parse(b.body.at) - Date.parse(a.body.at))
      .slice(0, MOST_TRIALS)
      .map(({ body, createdAt }): LoggedTrial => ({
        formula: body.formula,
        measured: body.measured,
        ovenId: body.ovenId,
        powderAgeMonths: body.powderAgeMonths,
        spoilt: body.seen.some(({ symptomId, degree }) => degree >= 3 && SPOILT.includes(symptomId)) || (body.slips?.length ?? 0) > 0,
        // Weighed before a cup was accepted, it was held against the table's cup.
        cups: body.cups?.filter(({ ingredientId }) => createdAt > (since.get(keyOf(`cup:${ingredientId}`)) ?? "")),
      })); // prettier-ignore
    const formulas = await entriesFor(store, trials.flatMap(({ formula }) => (nestedIds(formula.lines).length > 0 ? formula.lines : []))); // prettier-ignore
    const kitchen = { ingredients: own.map(({ body }) => body), formulas, ovens: profiles.map(({ id, body }) => [id, { biasK: body.biasK, swingK: body.swingK }] as [string, OvenProfile]) }; // prettier-ignore
    const found = trials.length === 0 ? [] : await computer.run("calibrate", { trials }, kitchen);
    // What is only kept in mind and was accepted already is told once.
    const fresh = found
      .filter(({ id, kind }) => kind === "oven" || kind === "cup" || !since.has(keyOf(id)))
      .map((one) => ({ ...one, accepted: false }));
    return { learnt: [...fresh, ...taken.map(({ body }) => ({ ...body.learnt, accepted: true }))], trials: trials.length };
  }

  app.post(
    "/api/calibrate",
    { ...forBakers, schema: { summary: "What the logged bakes tell of ovens, cups, powder, colour and minutes, with ranges", tags, response: { 200: learntAnswerSchema, ...problems } } },
    learn,
  ); // prettier-ignore

  app.post(
    "/api/learnt",
    { ...forBakers, schema: { summary: "Reckon with something that was learnt from now on", tags, body: acceptedSchema, response: { 200: learntAnswerSchema, ...problems } } },
    async ({ body }) => {
      const learnt = (await learn()).learnt.find(({ id, accepted: already }) => id === body.id && !already);
      if (!learnt) throw new Refusal("not-found", `Nothing was learnt under "${body.id}". POST /api/calibrate lists what there is.`);
      const { accepted: _, ...one } = learnt;
      const there = await accepted.read(keyOf(one.id));
      const before = await apply(one);
      if (there) await accepted.change(there.id, there.version, { learnt: sum(there.body.learnt, one), before: there.body.before });
      else await accepted.create(keyOf(one.id), { learnt: one, before });
      return learn();
    },
  ); // prettier-ignore

  app.delete(
    "/api/learnt/:id",
    { ...forBakers, schema: { summary: "Undo what was accepted", tags, params: z.object({ id: z.string().max(120) }), response: { 200: learntAnswerSchema, ...problems } } },
    async ({ params }) => {
      const there = await accepted.read(keyOf(params.id));
      if (!there) throw new Refusal("not-found", `Nothing was accepted under "${params.id}".`);
      const { learnt, before } = there.body;
      if (learnt.kind === "oven" && before.oven) {
        const oven = await ovens.read(learnt.of);
        if (oven) await ovens.change(oven.id, oven.version, { ...oven.body, biasK: before.oven.biasK });
      }
      if (learnt.kind === "cup") {
        const own = await ingredients.read(learnt.of);
        if (own && before.ingredient === null) await ingredients.remove(own.id, own.version);
        else if (own && before.ingredient) await ingredients.change(own.id, own.version, { ...own.body, gPerMl: before.ingredient.gPerMl }); // prettier-ignore
      }
      await accepted.remove(there.id, there.version);
      return learn();
    },
  ); // prettier-ignore

  /** Puts it where the readings take it from: an oven's profile, an ingredient of the kitchen's own. What is only told changes nothing. */
  async function apply(learnt: Learnt): Promise<Accepted["before"]> {
    if (learnt.kind === "oven") {
      const oven = await ovens.read(learnt.of);
      if (!oven) throw new Refusal("not-found", "This oven is not in the store any more.");
      const biasK = Math.max(-60, Math.min(60, Math.round(10 * (oven.body.biasK + learnt.value.mid)) / 10));
      await ovens.change(oven.id, oven.version, { ...oven.body, biasK });
      return { oven: oven.body };
    }
    if (learnt.kind === "cup") {
      const own = await ingredients.read(learnt.of);
      const from = own?.body ?? builtInShelf.get(learnt.of);
      if (!from) throw new Refusal("not-found", "This ingredient is not on the shelf any more.");
      const mid = from.gPerMl.mid * learnt.value.mid;
      const gPerMl = { low: mid * (learnt.value.low / learnt.value.mid), mid, high: mid * (learnt.value.high / learnt.value.mid) };
      const next = { ...from, gPerMl: scaled(gPerMl, 1) };
      if (own) await ingredients.change(own.id, own.version, next);
      else await ingredients.create(from.id, next);
      return { ingredient: own?.body ?? null };
    }
    return {};
  }
}

/** Ids of the store have no colons. */
const keyOf = (id: string): string => id.replace(/[^A-Za-z0-9_-]/g, "-").slice(0, 64);

/** Accepted twice, an oven is off by both. */
const sum = (first: Learnt, then: Learnt): Learnt =>
  first.kind === "oven"
    ? { ...then, value: { low: first.value.mid + then.value.low, mid: first.value.mid + then.value.mid, high: first.value.mid + then.value.high } }
    : then; // prettier-ignore
