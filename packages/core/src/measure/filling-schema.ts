import { z } from "zod";
import { fillings } from "./filling";

export const fillingSchema = z.enum(fillings);
