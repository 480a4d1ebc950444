import type { Analysis, Edit, Formula, Opened, PanOption, Shelf, SimulateOptions } from "@uprise/core";
import { brownWord, gramsText, ownOf } from "@uprise/core/page";
import { panOptions, pansForDepth } from "@uprise/core/page-bench";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { useAsked } from "../../device/use-asked";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Busy } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { opened } from "../../device/opened";
import { minutesText } from "../instruments/sentences";
import { useVessels } from "../wire/queries";

const quick: SimulateOptions = { frames: 0 };
const FIRST = 6;

const howMany = ({ count, vessel }: PanOption): string =>
  vessel.shape === "muffin"
    ? `${count} cups`
    : vessel.shape === "free"
      ? `${count} pieces`
      : count === 1
        ? "one"
        : `${count} of them`;
const howFull = (option: PanOption): string =>
  option.fillFraction === 0 ? `${Math.round(option.depthMm)} mm thick` : `${Math.round(100 * option.fillFraction)} % full`;

interface PanShelfProps {
  formula: Formula;
  analysis: Analysis;
  open: () => Opened;
  shelf: Shelf;
  edit: (edit: Edit) => void;
}

/** From this pan to those on the shelf: how many, how full, at what heat and for how long, and what to do with the rest. */
export function PanShelf({ formula, analysis, open, shelf, edit }: PanShelfProps) {
  const colours = useColours();
  const { pans } = useVessels();
  const [chosen, setChosen] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const [depthMm, setDepthMm] = useState<number | undefined>();
  const { massG } = analysis.batch;
  const density = analysis.body.densityGPerMl;
  const options = useMemo(
    () => panOptions(massG, density, formula.vessel, formula.oven, pans),
    [massG, density, formula.vessel, formula.oven, pans],
  );
  const sorted = depthMm === undefined ? options : pansForDepth(options, depthMm);
  const shown = all ? sorted : sorted.slice(0, FIRST);
  return (
    <View>
      <NumberField
        label="Wanted depth of batter"
        unit="mm"
        least={2}
        most={150}
        optional
        value={depthMm}
        onChange={setDepthMm}
        style={styles.depth}
      />
      <View role="list">
        {shown.map((option) => {
          const here = chosen === option.id;
          return (
            <View role="listitem" key={option.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
              <Press
                onPress={() => setChosen(here ? null : option.id)}
                aria-expanded={here}
                style={[styles.pan, { borderLeftColor: here ? colours.ink : "transparent" }]}
              >
                <Body strong={here}>{option.name}</Body>
                <Small tone="faint">
                  {howMany(option)}, {howFull(option)}
                  {depthMm === undefined || option.fillFraction === 0 ? "" : `, ${Math.round(option.depthMm)} mm deep`}
                </Small>
              </Press>
              {here ? <Chosen option={option} formula={formula} open={open} shelf={shelf} edit={edit} /> : null}
            </View>
          );
        })}
      </View>
      {options.length > FIRST ? (
        <Button kind="quiet" onPress={() => setAll(!all)}>
          {all ? "Fewer pans" : `All ${options.length} pans`}
        </Button>
      ) : null}
    </View>
  );
}

/** One pan in the computed bake. */
function Chosen({
  option,
  formula,
  open,
  shelf,
  edit,
}: {
  option: PanOption;
  formula: Formula;
  open: () => Opened;
  shelf: Shelf;
  edit: (edit: Edit) => void;
}) {
  const { vessel, celsius } = option;
  const input = useMemo(
    () =>
      opened(() => {
        const own = open();
        return { ...own, vessel, oven: { ...formula.oven, ...own.oven, celsius } };
      }).input,
    [open, vessel, celsius, formula.oven],
  );
  const { data: simulation, pending, fault } = useAsked("simulate", input ? [input, ownOf(shelf), quick] : null);
  const take = (factor: number): void => edit({ edit: "take-pan", vessel, celsius, factor });
  const percent = Math.round(100 * option.scale);
  return (
    <View style={styles.chosen} testID="pan-chosen">
      <Busy on={pending} what="Baking in that pan" />
      {fault ? <Body tone="stop">{fault.message}</Body> : null}
      {simulation ? (
        <Body>
          At {celsius} °C: {minutesText(simulation.done)}, up to {Math.round(simulation.highestMm)} mm
          {simulation.section.rimMm === null ? "" : ` under a rim of ${Math.round(simulation.section.rimMm)}`};{" "}
          {brownWord(simulation.browning.top)} on top.
          {simulation.overflowMl > 1 ? ` ${simulation.overflowMl} mL run over.` : ""}
        </Body>
      ) : null}
      {option.why === "" ? null : <Small tone="faint">{option.why}</Small>}
      {option.leftG > 5 ? (
        <Small tone="faint">
          With {option.vessel.shape === "muffin" ? "full tins only" : "one less"}, {gramsText(option.leftG)} of batter are left:{" "}
          {option.leftPieces > 0 ? `bake them as ${option.leftPieces} muffins` : "a spoonful for a test cake"}.
        </Small>
      ) : null}
      <View style={styles.buttons}>
        <Button kind="main" onPress={() => take(1)}>
          Bake it in this
        </Button>
        {option.fillFraction > 0 && Math.abs(percent - 100) >= 3 ? (
          <Button onPress={() => take(option.scale)}>{`Make ${percent} % of the batch to suit it`}</Button>
        ) : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  depth: { width: 200 },
  pan: {
    borderLeftWidth: 5,
    paddingLeft: space.m,
    flexDirection: "row",
    flexWrap: "wrap",
    alignItems: "center",
    alignContent: "center",
    justifyContent: "space-between",
    columnGap: space.m,
  },
  chosen: { gap: space.s, paddingLeft: space.l, paddingBottom: space.m },
  buttons: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
