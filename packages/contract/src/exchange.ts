import { columnRoles, formulaSchema, kindSchema, measuresSchema, packetSchema, readingSchema, regionIds } from "@uprise/core";
import { z } from "zod";
import { formulaFields, hasFormula, noFormula, textLimits } from "./requests";

const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, { error: "An id has 1 to 64 letters, digits, hyphens or underscores." });

/** What goes out, and in which forms each does. */
export const exportForms = {
  formula: ["jsonld", "markdown", "csv", "text"],
  trials: ["csv"],
  bakes: ["csv"],
  curves: ["csv"],
  plan: ["csv", "ics"],
  archive: ["zip"],
} as const;
export type ExportWhat = keyof typeof exportForms;
const formats = ["jsonld", "markdown", "csv", "text", "ics", "zip"] as const;
export type ExportFormat = (typeof formats)[number];

export const exportRequestSchema = z
  .object({
    what: z.enum(Object.keys(exportForms) as [ExportWhat, ...ExportWhat[]]),
    /** Ids of formulas, trials, bakes or a plan; for an archive of formulas with what belongs to them. Left out: all. */
    ids: z.array(idSchema).max(2000).optional(),
    format: z.enum(formats),
  })
  .superRefine(({ what, format, ids }, context) => {
    const forms: readonly string[] = exportForms[what];
    if (!forms.includes(format))
      context.addIssue({
        code: "custom",
        path: ["format"],
        message: `A ${what} goes out as ${forms.join(", ")}; not as ${format}.`,
      });
    if ((what === "plan" || what === "curves") && ids?.length !== 1)
      context.addIssue({
        code: "custom",
        path: ["ids"],
        message: `A ${what === "plan" ? "plan" : "curve"} goes out by itself: one id.`,
      });
  });
export type ExportRequest = z.infer<typeof exportRequestSchema>;

const columnsSchema = z.partialRecord(z.enum(columnRoles), z.number().int().min(0).max(199));

/** A page saved to disk is some megabytes. */
export const PAGE_LIMIT = 8_000_000;
export const importRequestSchema = z
  .object({
    /** A recipe or several as text or Markdown, a table, JSON-LD. */
    text: z.string().max(2_000_000, { error: "A text of up to 2 000 000 characters would be right." }).optional(),
    /** A web page as it was saved. */
    html: z.string().max(PAGE_LIMIT, { error: "A page of up to 8 MB would be right." }).optional(),
    /** The file's name, for a title. */
    name: z.string().max(200).optional(),
    /** For a table: which column holds what, from 0. */
    columns: columnsSchema.optional(),
    measures: measuresSchema.optional(),
    /** Which of what was found to take, from 0; left out, all. */
    only: z.array(z.number().int().min(0)).max(500).optional(),
    /** Names for what is taken, so that the same call once more makes nothing twice. */
    ids: z.array(idSchema).max(500).optional(),
  })
  .refine(({ text, html }) => (text === undefined) !== (html === undefined), { error: "Send text or html.", path: ["text"] });
export type ImportRequest = z.infer<typeof importRequestSchema>;

const mendingSchema = z.record(
  z.string().max(textLimits.lineSigns + 100),
  z.object({ ingredientId: z.string().max(80).optional(), grams: z.number().min(0).optional() }),
);

export const foundRecipeSchema = z.object({
  title: z.string(),
  form: z.enum(["json-ld", "microdata", "table", "text"]),
  /** What our reader was given, and what the file itself said of its lines. */
  text: z.string(),
  mending: mendingSchema,
  kind: kindSchema.optional(),
  reading: readingSchema,
  /** As it would stand on the bench. */
  formula: formulaSchema,
  notes: z.array(z.string()),
});
export type FoundRecipe = z.infer<typeof foundRecipeSchema>;

export const importAnswerSchema = z.object({
  recipes: z.array(foundRecipeSchema),
  /** Where it is a table: its head, some lines, and what its columns were taken for. */
  table: z
    .object({
      head: z.array(z.string()),
      sample: z.array(z.array(z.string())),
      columns: columnsSchema,
      fault: z.string().optional(),
    })
    .optional(),
  notes: z.array(z.string()),
  /** What was written, where it was asked for. */
  taken: z.array(z.object({ id: z.string(), title: z.string(), version: z.number() })),
});
export type ImportAnswer = z.infer<typeof importAnswerSchema>;

const restoredThing = z.object({
  what: z.string(),
  id: z.string(),
  title: z.string(),
  here: z.number().optional(),
  there: z.number().optional(),
});
/** What restoring an archive does, or did. */
export const restoreAnswerSchema = z.object({
  archive: z.object({ madeAt: z.string(), program: z.string(), things: z.number(), photos: z.number() }),
  add: z.array(restoredThing),
  /** Newer there than here: the archive's becomes the next version. */
  newer: z.array(restoredThing),
  /** Taken off here: it is on its list again. */
  back: z.array(restoredThing),
  /** Newer here: what is here stays. */
  older: z.array(restoredThing),
  /** The same version with another content: what is here stays. */
  conflict: z.array(restoredThing),
  same: z.number(),
  photos: z.number(),
  events: z.number(),
  /** What is missing from the archive or damaged, and why; the rest of it can be taken. */
  flaws: z.array(z.object({ path: z.string(), why: z.string() })),
  /** By which it can be undone. */
  undo: z.string().optional(),
});
export type RestoreAnswer = z.infer<typeof restoreAnswerSchema>;

export const undoneSchema = z.object({ undone: z.number(), kept: z.array(z.string()) });

export const labelRequestSchema = formulaFields
  .extend({
    region: z.enum(regionIds, { error: `A region is one of: ${regionIds.join(", ")}.` }),
    /** Packets to go by; left out, those of this kitchen. */
    shelf: z.array(packetSchema).max(500).optional(),
  })
  .refine(hasFormula, noFormula);
export type LabelRequest = z.infer<typeof labelRequestSchema>;

export const scaleUpRequestSchema = formulaFields
  .extend({
    times: z
      .number({ error: "How many times the formula as it stands." })
      .min(0.1, { error: "0.1 times or more would be right." })
      .max(1000, { error: "Up to 1000 times would be right." }),
    bowlMl: z
      .number({ error: "What the largest bowl holds, mL." })
      .min(200, { error: "200 mL or more would be right." })
      .max(500_000),
    placesPerLoad: z.number().int().min(1, { error: "One place or more would be right." }).max(2000),
  })
  .refine(hasFormula, noFormula);
export type ScaleUpRequest = z.infer<typeof scaleUpRequestSchema>;
