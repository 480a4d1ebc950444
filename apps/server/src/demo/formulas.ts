import {
  type Formula,
  type FormulaComponent,
  formulaFrom,
  formulaSchema,
  type Kind,
  type Measures,
  type Oven,
  type Process,
  readRecipe,
  type UnitId,
  vesselOf,
} from "@uprise/core";
import table from "./formulas.json";

interface DemoFormula {
  id: string;
  title: string;
  kind: Kind;
  measures: Measures;
  vesselId: string;
  celsius: number;
  mode: NonNullable<Oven["mode"]>;
  method: NonNullable<Process["method"]>;
  restMinutes: number;
  notes: string;
  lines: DemoLine[];
  components?: (FormulaComponent & { lines: DemoLine[] })[];
}
type DemoLine = [ingredientId: string, grams: number, unit?: UnitId];

/** A recipe as a neighbour wrote it down: it forgets an amount, and its minutes are for two tins. */
const plumLoaf = `The harbour master's plum loaf
200 g sorghum flour
100 g sweet rice flour
60 g potato starch
3 g xanthan gum
2 tsp baking powder
1/2 tsp baking soda
1/2 tsp salt
150 g caster sugar
3 eggs
270 g plain yoghurt
butter, softened
For the plum filling:
250 g plums, stoned and chopped
40 g sugar
For the topping:
40 g rolled oats
20 g demerara sugar
1 tbsp sunflower oil
For the glaze:
60 g icing sugar
2 tsp lemon juice
Method
Spread half of the batter in a greased 900 g loaf tin, spoon the cooked plums along it, cover with the rest.
Bake at 175 °C for 45 minutes.`;

function fromText(text: string): Formula {
  const formula = formulaFrom(readRecipe(text, "metric"), "metric", "loaf", undefined, { text, measures: "metric" });
  return {
    ...formula,
    // The plums are cooked down before they go in.
    components: (formula.components ?? []).map((component) =>
      component.role === "filling" ? { ...component, cookedG: 200 } : component,
    ),
  };
}

const kioskFormulas: { id: string; formula: Formula }[] = (table as DemoFormula[]).map((demo) => ({
  id: demo.id,
  formula: formulaSchema.parse({
    shape: 2,
    title: demo.title,
    kind: demo.kind,
    measures: demo.measures,
    ...(demo.components ? { components: demo.components.map(({ lines: _, ...component }) => component) } : {}),
    lines: [
      ...demo.lines.map((line) => ({ line, place: {} })),
      ...(demo.components ?? []).flatMap(({ id, lines }) => lines.map((line) => ({ line, place: { component: id } }))),
    ].map(({ line: [ingredientId, grams, unit], place }, index) => ({
      id: `l${index + 1}`,
      ingredientId,
      grams: { low: grams, mid: grams, high: grams },
      unit: unit ?? "g",
      ...place,
    })),
    vessel: vesselOf(demo.vesselId)?.vessel,
    oven: { celsius: demo.celsius, mode: demo.mode },
    process: { method: demo.method, restMinutes: demo.restMinutes },
    notes: demo.notes,
  }),
}));

/** The formulas of the kiosk on the ferry pier, checked against the schema that every formula must meet. */
export const demoFormulas = [...kioskFormulas, { id: "plum-loaf", formula: formulaSchema.parse(fromText(plumLoaf)) }];
