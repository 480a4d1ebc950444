import type { Analysis, Edit, Formula, NumberUnit, Opened, PieceForm, Shelf, Simulation, Vessel } from "@uprise/core";
import { gramsText, pieceForms, WARM_C, withStart } from "@uprise/core/page";
import { rolledThickness } from "@uprise/core/page-bench";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Body, Heading } from "../../ui/words";
import { FillSection } from "../instruments/section";
import { FromAbove } from "../instruments/from-above";
import { bakeSentence } from "../instruments/bake-words";
import { sentenceOf } from "../instruments/sentences";
import { Dividing } from "./dividing";
import { Fact } from "../../ui/facts";
import { PanShelf } from "./pan-shelf";

interface FillRoomProps {
  formula: Formula;
  analysis: Analysis;
  simulation: Simulation | null;
  /** The formula opened for the core. */
  open: () => Opened;
  shelf: Shelf;
  edit: (edit: Edit) => void;
  faults: ReadonlyMap<string, string>;
}

const measuresOf = (
  vessel: Vessel,
): {
  key: "lengthMm" | "widthMm" | "heightMm" | "diameterMm" | "pieces" | "pieceG" | "thicknessMm";
  label: string;
  unit: NumberUnit;
  whole?: boolean;
  least: number;
  most: number;
}[] => {
  const mm = "mm" as const;
  const length = { key: "lengthMm" as const, label: "Length inside", unit: mm, least: 20, most: 900 };
  const width = { key: "widthMm" as const, label: "Width inside", unit: mm, least: 20, most: 900 };
  const height = { key: "heightMm" as const, label: "Height inside", unit: mm, least: 5, most: 300 };
  const diameter = {
    key: "diameterMm" as const,
    label: vessel.shape === "muffin" ? "Cup at its rim" : "Diameter inside",
    unit: mm,
    least: 15,
    most: 900,
  };
  const pieces = { key: "pieces" as const, label: "How many", unit: "" as const, whole: true, least: 1, most: 500 };
  switch (vessel.shape) {
    case "rectangular":
      return [length, width, height, pieces];
    case "round":
    case "ring":
      return [diameter, height, pieces];
    case "muffin":
      return [pieces, diameter, height];
    case "free":
    case "griddle":
      return [
        vessel.pieceG === undefined ? pieces : { key: "pieceG", label: "A piece weighs", unit: "g" as const, least: 5, most: 2000 },
        { key: "thicknessMm", label: "Thick", unit: mm, least: 2, most: 120 },
      ];
  }
};

const linings: { value: NonNullable<Vessel["lining"]>; label: string }[] = [
  { value: "greased", label: "Greased" },
  { value: "greased-base", label: "Base only" },
  { value: "paper", label: "Paper" },
  { value: "none", label: "Bare" },
];

const pieceWord: Record<PieceForm, string> = {
  disc: "Patted disc",
  ball: "Ball",
  drop: "Drop",
  wedge: "Wedge",
  log: "Log",
  slice: "Slice",
  sheet: "Rolled thin",
};
type GoesIn = "cold" | "warm" | "hot";
const goesIn = (vessel: Vessel): GoesIn => {
  const { warmC, preheated } = withStart(vessel);
  return warmC !== undefined ? "warm" : preheated ? "hot" : "cold";
};

/** Pieces without walls: what they are, and whether they stand apart or close; a pan: how warm it is when the batter goes in. */
function Standing({
  vessel,
  pieceG,
  density,
  edit,
}: {
  vessel: Vessel;
  pieceG: number;
  density: number;
  edit: (edit: Edit) => void;
}) {
  const thinned = vessel.piece ?? "disc";
  if (vessel.shape === "griddle") return null;
  if (vessel.shape !== "free")
    return (
      <Choice
        titled
        label="The pan goes in"
        options={[
          { value: "cold" as const, label: "Cold" },
          { value: "warm" as const, label: "Warm, fat melted in it" },
          { value: "hot" as const, label: "As hot as the oven" },
        ]}
        value={goesIn(vessel)}
        onChange={(value) =>
          edit({
            edit: "set-vessel",
            set: value === "warm" ? { warmC: WARM_C, preheated: false } : { preheated: value === "hot" },
            clear: value === "warm" ? ["start"] : ["warmC", "start"],
          })
        }
      />
    );
  return (
    <>
      <Choice
        titled
        label="A piece is a"
        options={pieceForms.map((value) => ({ value, label: pieceWord[value] }))}
        value={vessel.piece ?? "disc"}
        onChange={(piece) => edit({ edit: "set-vessel", set: { piece } })}
      />
      {thinned === "disc" || thinned === "sheet" ? (
        <NumberField
          label="Rolled to a round of"
          unit="mm"
          least={20}
          most={500}
          optional
          value={undefined}
          onChange={(across) => {
            if (across === undefined) return;
            const thicknessMm = Math.min(120, Math.max(1, Math.round(10 * rolledThickness(pieceG, density, across)) / 10));
            edit({ edit: "set-vessel", set: { thicknessMm } });
          }}
          style={styles.field}
        />
      ) : null}
      <Choice
        titled
        label="They stand"
        options={[
          { value: "apart" as const, label: "Apart" },
          { value: "close" as const, label: "Close, touching" },
        ]}
        value={vessel.touching ? "close" : "apart"}
        onChange={(value) => edit({ edit: "set-vessel", set: { touching: value === "close" } })}
      />
    </>
  );
}

/** The pan: which, how large, how full. */
export function FillRoom({ formula, analysis, simulation, open, shelf, edit, faults }: FillRoomProps) {
  const { vessel } = formula;
  const { fill } = analysis;
  return (
    <View style={styles.room}>
      <View style={styles.drawing}>
        <FillSection fill={fill} vessel={vessel} width={260} />
      </View>
      <Body>{sentenceOf("fill", analysis)}</Body>
      <View style={styles.fields}>
        {measuresOf(vessel).map(({ key, label, unit, whole, least, most }) => (
          <NumberField
            key={key}
            label={label}
            unit={unit}
            least={least}
            most={most}
            whole={whole === true}
            error={faults.get(`vessel.${key}`)}
            value={vessel[key] ?? (key === "pieces" ? fill.pieces : key === "thicknessMm" ? fill.depthMm : least)}
            onChange={(value) => value !== undefined && edit({ edit: "set-vessel", set: { [key]: value } })}
            style={styles.field}
          />
        ))}
      </View>
      {vessel.shape === "griddle" ? null : (
        <Choice
          titled
          label="Lining"
          options={
            vessel.shape === "muffin" ? [...linings.slice(0, 1), { value: "paper-cups" as const, label: "Paper cups" }] : linings
          }
          value={vessel.lining ?? "greased"}
          onChange={(lining) => edit({ edit: "set-vessel", set: { lining } })}
        />
      )}
      <Standing vessel={vessel} pieceG={fill.pieceG} density={analysis.body.densityGPerMl} edit={edit} />
      {simulation && fill.rimMm === null ? <FromAbove simulation={simulation} vessel={vessel} width={260} /> : null}
      <Fact
        name="Batter in the pan"
        value={
          fill.rimMm === null
            ? `${fill.pieces} × ${gramsText(fill.pieceG)}`
            : `${Math.round(fill.depthMm)} of ${Math.round(fill.rimMm)} mm`
        }
        why={`${gramsText(analysis.batch.massG)} of batter as it is poured: with the air of its method and the gas that mixing left in it.`}
      />
      {fill.crownMm ? (
        <Fact
          name="Crown, expected"
          value={`${Math.round(fill.crownMm.low)}–${Math.round(fill.crownMm.high)} mm`}
          why="The highest the middle stands in the simulated bake: gas by its reactions at the heat of each place, steam and air in the bubbles, what escapes, and the crumb that sets around it. Known within an eighth of the growth."
        />
      ) : null}
      {simulation ? (
        <Fact
          name="When it has cooled"
          value={`${Math.round(simulation.cooledMm.middle)} mm, edge ${Math.round(simulation.cooledMm.edge)}`}
          why={`${bakeSentence(simulation)} It weighs ${simulation.volumeMlPerG.toFixed(2)} mL per gram when it leaves the oven.`}
        />
      ) : null}
      <Heading>From this pan to another</Heading>
      <PanShelf formula={formula} analysis={analysis} open={open} shelf={shelf} edit={edit} />
      <Heading>Divide it</Heading>
      <Dividing analysis={analysis} />
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  drawing: { alignItems: "center" },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
