import { toNestErrors } from "@hookform/resolvers";
import type { FieldErrors, FieldValues, Resolver } from "react-hook-form";
import { ask } from "../../device/workers";
import type { SchemaName } from "../../workers/tasks";

/** A form checked by a schema of the contract, in a worker. */
export const byContract =
  <T extends FieldValues, C = unknown, V = T>(schema: SchemaName): Resolver<T, C, V> =>
  async (values, _context, options) => {
    const answer = await ask("check", schema, values);
    if (answer.ok) return { values: answer.value as V, errors: {} };
    const errors: Record<string, { type: string; message: string }> = {};
    for (const { path, message } of answer.issues) errors[path.join(".")] ??= { type: "contract", message };
    return { values: {}, errors: toNestErrors(errors as unknown as FieldErrors<T>, options) };
  };
