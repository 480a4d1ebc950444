import { forBakers, forHelpers } from "../access/roles";
import {
  exportRequestSchema,
  type ExportRequest,
  importAnswerSchema,
  type ImportAnswer,
  importRequestSchema,
  PAGE_LIMIT,
  type PlanRequest,
  restoreAnswerSchema,
  undoneSchema,
} from "@uprise/contract";
import { type BakeRecord, bakesCsv, curvesCsv, formulaSchema, planCsv, type Trial, trialsCsv } from "@uprise/core";
import { randomUUID } from "node:crypto";
import { createWriteStream } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
import { join } from "node:path";
import { Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { z } from "zod";
import { besideOf, readArchive } from "../archive/read";
import { previewRestore, restore, undoRestore } from "../archive/restore";
import { bodySchemas, eventsFileSchema, manifestSchema, thingFileSchema } from "../archive/shapes";
import { writeArchive } from "../archive/write";
import type { Computer } from "../compute/pool";
import { Refusal } from "../errors";
import type { Store } from "../store/store";
import { type App, problems } from "../wire";
import { bakeEventsOf } from "./bakes";
import { calendarOf } from "./calendar";
import { kitchenDataFor } from "./kitchen-data";
import { askedDay } from "./plans";

const tags = ["out and in"];
/** An archive that comes over the wire; a larger one is restored on the server's own machine. */
const ARCHIVE_LIMIT = 256 * 1024 * 1024;

const AT_ONCE = 20;

/** What is sent, as a file of its own in the data folder; refuses what is larger than an archive may be, and nothing at all. */
async function received(body: Readable, dataFolder: string): Promise<string> {
  const folder = join(dataFolder, "incoming");
  await mkdir(folder, { recursive: true });
  const path = join(folder, `${randomUUID()}.zip`);
  let bytes = 0;
  const counted = new Transform({
    transform(part: Buffer, _, done) {
      bytes += part.length;
      done(bytes > ARCHIVE_LIMIT ? new Refusal("too-large", `The archive is larger than ${ARCHIVE_LIMIT / 1024 / 1024} MB; on the server's own machine npm run restore takes it.`) : null, part);
    },
  });
  try {
    await pipeline(body, counted, createWriteStream(path, { mode: 0o600 }));
    if (bytes === 0) throw new Refusal("invalid", "An archive is sent as its bytes with the content type application/zip.");
    return path;
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
} // prettier-ignore

interface Sent {
  name: string;
  type: string;
  body: string;
}

const fileName = (title: string): string =>
  title.normalize("NFKD").replace(/[^\w\s-]/g, "").trim().replace(/\s+/g, "-").toLowerCase().slice(0, 60) || "uprise"; // prettier-ignore

/** Between two recipes of one Markdown or text; our reader parts them there again. */
const RULE = "\n---\n\n";

/** What a kitchen gives away and takes in: formulas, trials, bakes, plans in open forms, the whole of it as an archive. */
export async function exchangeRoutes(
  app: App,
  store: Store,
  computer: Computer,
  program: string,
  dataFolder: string,
): Promise<void> {
  app.post(
    "/api/export",
    {
      ...forBakers,
      schema: { summary: "Formulas, trials, bakes, curves, a plan or an archive as a file", tags, body: exportRequestSchema },
    },
    async ({ body }, reply) => {
      if (body.what === "archive") {
        const name = `uprise-${new Date().toISOString().slice(0, 10)}.zip`;
        return reply
          .type("application/zip")
          .header("content-disposition", `attachment; filename="${name}"`)
          .send(writeArchive(store, { program, madeAt: new Date(), ids: body.ids }));
      }
      const sent = await exported(store, computer, body);
      return reply.type(sent.type).header("content-disposition", `attachment; filename="${sent.name}"`).send(sent.body);
    },
  );

  app.post(
    "/api/import",
    { ...forBakers, bodyLimit: 2 * PAGE_LIMIT, schema: { summary: "Recipes out of a text, a table, JSON-LD or a saved page: shown as a reading; ?take=1 keeps them", tags, body: importRequestSchema, querystring: z.object({ take: z.literal("1").optional() }), response: { 200: importAnswerSchema, ...problems } } },
    async ({ body, query }): Promise<ImportAnswer> => {
      const answer = await computer.run("import", body, await kitchenDataFor(store, {}));
      if (query.take !== "1") return answer;
      if (answer.table?.fault !== undefined) throw new Refusal("unprocessable", answer.table.fault, { errors: [{ path: "columns", message: answer.table.fault }] });
      const wanted = answer.recipes.filter((_, k) => body.only?.includes(k) ?? true);
      if (wanted.length === 0) throw new Refusal("unprocessable", "No recipe was chosen of what was found; one at least would be right.", { errors: [{ path: "only", message: `Numbers from 0 to ${answer.recipes.length - 1}.` }] });
      const taken: ImportAnswer["taken"] = [];
      for (const [k, { formula }] of wanted.entries()) {
        const { id, version } = await store.formulas.create(formulaSchema.parse(formula), "brought from elsewhere", body.ids?.[k]);
        taken.push({ id, version, title: formula.title });
      }
      return { ...answer, taken };
    },
  ); // prettier-ignore

  await app.register(async (scope: App) => {
    // As it comes, into a file: an archive of photographs is larger than what should stand in memory.
    scope.addContentTypeParser(["application/zip", "application/octet-stream"], { bodyLimit: ARCHIVE_LIMIT }, (_, payload, done) => done(null, payload));
    scope.post(
      "/api/restore",
      { ...forBakers, bodyLimit: ARCHIVE_LIMIT, schema: { summary: "What restoring an archive would do; ?take=1 does it", tags, querystring: z.object({ take: z.literal("1").optional() }), response: { 200: restoreAnswerSchema, ...problems } } },
      async ({ body, query }) => {
        if (!(body instanceof Readable)) throw new Refusal("invalid", "An archive is sent as its bytes with the content type application/zip.");
        const path = await received(body, dataFolder);
        try {
          const archive = await readArchive(path, besideOf(join(dataFolder, "copies")));
          try {
            return query.take === "1" ? await restore(store, dataFolder, archive) : await previewRestore(store, archive);
          } finally {
            archive.close();
          }
        } finally {
          await rm(path, { force: true });
        }
      },
    );
  }); // prettier-ignore
  app.delete(
    "/api/restore/:id",
    { ...forBakers, schema: { summary: "Undo a restore, but for what was changed since", tags, params: z.object({ id: z.string().max(64) }), response: { 200: undoneSchema, ...problems } } },
    ({ params }) => undoRestore(store, dataFolder, params.id),
  ); // prettier-ignore

  app.get("/api/schemas", { ...forHelpers, schema: { summary: "JSON Schemas of everything in an archive", tags } }, () => ({
    format: "uprise-archive",
    manifest: z.toJSONSchema(manifestSchema, { io: "input", unrepresentable: "any" }),
    thing: z.toJSONSchema(thingFileSchema, { io: "input", unrepresentable: "any" }),
    events: z.toJSONSchema(eventsFileSchema, { io: "input", unrepresentable: "any" }),
    bodies: Object.fromEntries(Object.entries(bodySchemas).map(([name, schema]) => [name, z.toJSONSchema(schema, { io: "output", unrepresentable: "any" })])),
  })); // prettier-ignore
}

/** The ids of all formulas that are on the list. */
async function everyFormula(store: Store): Promise<string[]> {
  const ids: string[] = [];
  for (let page = 1; ; page++) {
    const { items, total } = await store.formulas.list({ page, pageSize: 500 });
    ids.push(...items.map(({ id }) => id));
    if (items.length === 0 || ids.length >= total) return ids;
  }
}

async function exported(store: Store, computer: Computer, { what, ids, format }: ExportRequest): Promise<Sent> {
  const csv = "text/csv; charset=utf-8";
  switch (what) {
    case "formula": {
      const all = ids ?? (await everyFormula(store));
      const stored = await Promise.all(all.map((id) => store.formulas.read(id)));
      const lines = stored.flatMap(({ formula }) => formula.lines);
      const form = format as "jsonld" | "markdown" | "csv" | "text";
      const kitchen = await kitchenDataFor(store, { lines });
      const made: Awaited<ReturnType<typeof computer.run<"carry">>> = [];
      // Each is baked for its steps and its nutrition: some at a time, so that a whole book is no single long task.
      for (let k = 0; k < stored.length; k += AT_ONCE)
        made.push(...(await computer.run("carry", { formulas: stored.slice(k, k + AT_ONCE), format: form }, kitchen)));
      const [first] = made;
      const name = made.length === 1 && first ? fileName(first.title) : "formulas";
      if (form === "jsonld") {
        const nodes = made.map(({ text }) => JSON.parse(text) as object);
        const whole = nodes.length === 1 ? nodes[0] : { "@context": "https://schema.org", "@graph": nodes };
        return { name: `${name}.jsonld`, type: "application/ld+json; charset=utf-8", body: `${JSON.stringify(whole, null, 2)}\n` };
      }
      if (form === "csv") return { name: `${name}.csv`, type: csv, body: made.length === 1 && first ? first.text : joinedCsv(made) };
      const markdown = form === "markdown";
      return {
        name: `${name}.${markdown ? "md" : "txt"}`,
        type: `text/${markdown ? "markdown" : "plain"}; charset=utf-8`,
        body: made.map(({ text }) => text).join(RULE),
      };
    }
    case "trials": {
      const rows = await store.things<Trial>("trials").list();
      const wanted = rows.filter(({ id }) => ids?.includes(id) ?? true).sort((a, b) => Date.parse(a.body.at) - Date.parse(b.body.at));
      return { name: "trials.csv", type: csv, body: trialsCsv(wanted.map(({ id, body }) => ({ id, trial: body }))) };
    }
    case "bakes":
    case "curves": {
      const rows = await store.things<BakeRecord>("bakes").list();
      const wanted = rows.filter(({ id }) => ids?.includes(id) ?? true);
      const bakes = await Promise.all(wanted.map(async ({ id, body }) => ({ id, title: body.title, events: await bakeEventsOf(store, id) })));
      const [one] = bakes;
      if (what === "bakes") return { name: "bakes.csv", type: csv, body: bakesCsv(bakes) };
      if (!one) throw new Refusal("not-found", `No bake has the id "${ids?.[0] ?? ""}". GET /api/bakes lists them.`);
      return { name: `${fileName(one.title)}-curves.csv`, type: csv, body: curvesCsv(one.events) };
    }
    case "plan": {
      const row = await store.things<{ title: string; day: PlanRequest }>("plans").read(ids?.[0] ?? "");
      if (!row) throw new Refusal("not-found", `No plan has the id "${ids?.[0] ?? ""}". GET /api/plans lists them.`);
      const { day, kitchen } = await askedDay(store, row.body.day);
      const plan = await computer.run("plan", day, kitchen);
      const name = fileName(row.body.title);
      if (format === "csv") return { name: `${name}.csv`, type: csv, body: planCsv(plan) };
      return { name: `${name}.ics`, type: "text/calendar; charset=utf-8", body: calendarOf(row.id, row.body.title, plan, row.version) };
    }
    case "archive":
      throw new Error("an archive goes out as a stream");
  }
} // prettier-ignore

/** Several tables of formulas as one, the recipe's name before each line. */
function joinedCsv(made: readonly { title: string; text: string }[]): string {
  const mark = "\uFEFF";
  const quoted = (title: string): string => `"${(/^[=+\-@]/.test(title) ? `'${title}` : title).replaceAll('"', '""')}"`;
  const tables = made.map(({ title, text }) => {
    // Lines end within quotation marks too; a table is taken apart as one.
    const [head = "", ...rows] = text
      .replace(mark, "")
      .trimEnd()
      .split(/\r\n(?=(?:[^"]*"[^"]*")*[^"]*$)/);
    return { head: `recipe,${head}`, rows: rows.map((row) => `${quoted(title)},${row}`) };
  });
  return `${mark}${[tables[0]?.head ?? "recipe", ...tables.flatMap(({ rows }) => rows)].join("\r\n")}\r\n`;
}
