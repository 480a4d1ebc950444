import { z } from "zod";
import { kinds } from "./kinds";

// prettier-ignore
export const kindSchema = z.enum(kinds);
export type Kind = z.infer<typeof kindSchema>;
