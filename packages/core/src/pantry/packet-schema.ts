import { z } from "zod";
import { allergenSchema } from "./ingredient-schema";
import { packetGluten } from "./packet-gluten";

const day = z.iso.date({ error: "A day such as 2026-11-28 would be right." });
const grams = (words: string) => z.number({ error: words }).positive({ error: words }).max(1_000_000, { error: words });
/** A packet as it stands on the shelf: what was paid for it, how much is left, and what its label says. Grams; the price in the currency's own unit. */
export const packetSchema = z.object({
  ingredientId: z.string().min(1, { error: "Which ingredient is in it?" }).max(80),
  name: z
    .string()
    .trim()
    .min(1, { error: "A name, as on the packet." })
    .max(120, { error: "A name of up to 120 characters would be right." }),
  sizeG: grams("What a full packet weighs, such as 500 g, would be right."),
  price: z
    .number({ error: "What a packet costs, such as 2.40, would be right." })
    .min(0, { error: "A price of 0 or more would be right." })
    .max(100_000, { error: "A price of up to 100 000 would be right." })
    .optional(),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, { error: "Three letters, such as EUR, GBP or USD, would be right." })
    .default("EUR"),
  leftG: z
    .number({ error: "What is left of it, in g." })
    .min(0, { error: "0 g or more would be right." })
    .max(1_000_000, { error: "Up to 1 000 000 g would be right." })
    .optional(),
  openedOn: day.optional(),
  bestBefore: day.optional(),
  lot: z.string().max(80).optional(),
  /** Allergens and the trace statement as printed on this very packet. */
  allergens: z.array(allergenSchema).optional(),
  statement: z.string().max(400).optional(),
  /** What the packet says of gluten. */
  gluten: z.enum(packetGluten).optional(),
  /** What packets of it cost before, the oldest first. */
  prices: z
    .array(z.object({ on: day, price: z.number().min(0), sizeG: z.number().positive() }))
    .max(60)
    .optional(),
});
export type Packet = z.infer<typeof packetSchema>;
