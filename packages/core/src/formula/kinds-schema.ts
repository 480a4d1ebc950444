import { z } from "zod";
import { kinds } from "./kinds";

export const kindSchema = z.enum(kinds);
