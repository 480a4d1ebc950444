import { z } from "zod";
import { fillings } from "./filling";

export const fillingSchema = z.enum(fillings);
export type Filling = z.infer<typeof fillingSchema>;
