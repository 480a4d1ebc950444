import {
  deviceInputSchema,
  idSchema,
  ingredientInputSchema,
  ovenProfileSchema,
  planInputSchema,
  tastingSchema,
  vesselInputSchema,
} from "@uprise/contract";
import {
  bakeRecordSchema,
  formulaSchema,
  learntSchema,
  packetSchema,
  seasonSchema,
  trialSchema,
  upgradedFormula,
} from "@uprise/core";
import { z } from "zod";
import type { WholeThing } from "../store/store";

/** What the manifest of an archive says it is. */
export const ARCHIVE = "uprise-archive";
/** 2: versions and events in files of their own, photographs that stand beside a copy, what was missing when it was made. */
export const ARCHIVE_SHAPE = 2;

/** A manifest goes out, and is checked, so many of its files at a time: of a large kitchen it is megabytes, which in one piece would hold the server. */
export const FILES_AT_ONCE = 500;
const MOST_FILES = 500_000;

const timeSchema = z.iso.datetime({ offset: true });
export const HASH = /^[0-9a-f]{64}$/;
const hashSchema = z.string().regex(HASH);

/** A file that is not as it should be, and why. */
export const flawSchema = z.object({ path: z.string(), why: z.string() });
export type Flaw = z.infer<typeof flawSchema>;

export const manifestSchema = z.object({
  format: z.literal(ARCHIVE, { error: `The manifest's format is "${ARCHIVE}".` }),
  shape: z.union([z.literal(1), z.literal(ARCHIVE_SHAPE)], { error: `This program reads archives of shape 1 and ${ARCHIVE_SHAPE}.` }),
  program: z.string().max(40),
  madeAt: timeSchema,
  files: z.array(z.object({ path: z.string().max(200), bytes: z.number().int().min(0), sha256: hashSchema })).max(MOST_FILES),
  /** Photographs that stand in a folder beside it, once for all copies. */
  beside: z.array(z.object({ sha256: hashSchema, bytes: z.number().int().min(0) })).max(200_000).optional(),
  /** What was missing or damaged when it was made. */
  missing: z.array(flawSchema).max(200_000).optional(),
}); // prettier-ignore
export type Manifest = z.infer<typeof manifestSchema>;
/** That it has a list of files; what they are is checked some at a time. */
export const manifestFilesSchema = z.looseObject({ files: z.array(z.unknown()).max(MOST_FILES) });

/** Bodies of every kind of thing, as they are checked before they are written. */
export const bodySchemas = {
  formulas: z.preprocess(upgradedFormula, formulaSchema),
  ingredients: ingredientInputSchema,
  vessels: vesselInputSchema.omit({ id: true }),
  ovens: ovenProfileSchema,
  plans: planInputSchema.omit({ id: true }),
  bakes: bakeRecordSchema,
  devices: deviceInputSchema.omit({ id: true }),
  packets: packetSchema,
  trials: trialSchema,
  tastings: tastingSchema,
  seasons: seasonSchema,
  learnt: z.object({ learnt: learntSchema, before: z.object({ oven: ovenProfileSchema.optional(), ingredient: ingredientInputSchema.nullable().optional() }) }),
} satisfies Record<WholeThing["table"], z.ZodType>; // prettier-ignore

export const tableNames = Object.keys(bodySchemas) as WholeThing["table"][];

const versionSchema = z.object({
  number: z.number().int().min(1),
  reason: z.string().max(300),
  savedAt: timeSchema,
  body: z.unknown(),
});

export const thingFileSchema = z
  .object({
    // An ingredient's id is longer than others may be.
    id: z.union([idSchema, z.string().regex(/^[a-z0-9-]{1,80}$/)]),
    version: z.number().int().min(1).max(1_000_000),
    shape: z.number().int().min(1).max(1000),
    createdAt: timeSchema,
    updatedAt: timeSchema,
    body: z.unknown(),
    removedAt: timeSchema.nullable().optional(),
    made: hashSchema.nullable().optional(),
    /** Of a formula in an archive of the first shape. */
    versions: z.array(versionSchema).max(10_000).optional(),
  })
  .refine(({ version, versions = [] }) => versions.every(({ number }) => number <= version), {
    error: "Its versions go beyond the one that it says it has.",
    path: ["versions"],
  });

/** Some versions of a formula; `version` is the one that it has. */
export const versionsFileSchema = z
  .object({ formulaId: idSchema, version: z.number().int().min(1), versions: z.array(versionSchema).min(1).max(10_000) })
  .refine(({ version, versions }) => versions.every(({ number }) => number <= version), {
    error: "Its versions go beyond the one that it says it has.",
    path: ["versions"],
  });

export const eventsFileSchema = z.object({
  bakeId: idSchema,
  events: z
    .array(
      z.object({ id: z.string().regex(/^[A-Za-z0-9_.:-]{1,80}$/), at: timeSchema, kind: z.string().max(40), body: z.unknown() }),
    )
    .max(20_000),
});
