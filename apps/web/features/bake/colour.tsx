import type { ColourTrouble, Edit, Formula, Opened, Shelf, Simulation } from "@uprise/core";
import { brownWord } from "@uprise/core/page";
import { colourTroublesOf, colourTroubleWords, colourWays, mends } from "@uprise/core/page-bench";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Busy } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { type TriedWay, useWays } from "./use-ways";

interface ColourProps {
  formula: Formula;
  simulation: Simulation;
  open: () => Opened;
  shelf: Shelf;
  edit: (edit: Edit) => void;
}

const capital = (words: string): string => words.replace(/^./, (c) => c.toUpperCase());

/** Colour as it comes out, above and beneath; where a baker would mend it, what was baked and does, with what each costs. */
export function Colour({ formula, simulation, open, shelf, edit }: ColourProps) {
  const troubles = colourTroublesOf(formula, simulation);
  const { top, base } = simulation.browning;
  return (
    <View style={styles.colour}>
      <Body>{`Comes out ${brownWord(top)} on top and ${brownWord(base)} beneath.`}</Body>
      {troubles.map((trouble) => (
        <Mend key={trouble} trouble={trouble} formula={formula} simulation={simulation} open={open} shelf={shelf} edit={edit} />
      ))}
    </View>
  );
}

function Mend({ trouble, formula, simulation, open, shelf, edit }: ColourProps & { trouble: ColourTrouble }) {
  const colours = useColours();
  const [asked, setAsked] = useState(false);
  const { minutes } = simulation;
  const ways = useMemo(() => (asked ? colourWays(trouble, formula, { minutes }) : null), [asked, trouble, formula, minutes]);
  const { tried, pending, fault } = useWays(formula, open, shelf, ways);
  const helps = tried.filter(
    (one): one is TriedWay & { simulation: Simulation } =>
      one.simulation !== null && mends(trouble, formula, simulation, one.simulation),
  );
  const others = tried.filter((one) => !helps.some(({ way }) => way === one.way));
  return (
    <View style={styles.mend}>
      <Body strong>{colourTroubleWords[trouble]}</Body>
      {asked ? null : (
        <Button kind="plain" onPress={() => setAsked(true)}>
          Bake what would help
        </Button>
      )}
      <Busy on={pending} what="Baking each way" />
      {fault ? <Body tone="caution">{fault}</Body> : null}
      <View role="list" aria-label={`Ways out: ${colourTroubleWords[trouble]}`}>
        {helps.map(({ way, simulation: then }) => (
          <View key={way.id} role="listitem" style={[styles.way, { borderBottomColor: colours.rule }]}>
            <View style={styles.words}>
              <Body strong>{`${capital(way.say)}.`}</Body>
              <Small>{`${capital(brownWord(then.browning.top))} on top, ${brownWord(then.browning.base)} beneath, ${Math.round(then.minutes)} min${changeText(then.minutes - minutes)}. Costs: ${way.cost}.`}</Small>
            </View>
            <Button label={`Take it: ${way.say}`} onPress={() => way.edits.forEach(edit)}>
              Take it
            </Button>
          </View>
        ))}
      </View>
      {asked && !pending && helps.length === 0 ? (
        <Small tone="faint">Nothing that was baked mends it without a new fault.</Small>
      ) : null}
      {!pending && helps.length > 0 && others.length > 0 ? (
        <Small tone="faint">{`Baked too, and no help: ${others.map(({ way }) => way.say).join("; ")}.`}</Small>
      ) : null}
    </View>
  );
}

const changeText = (by: number): string => (Math.abs(by) < 1 ? "" : ` (${by > 0 ? "+" : "−"}${Math.round(Math.abs(by))})`);

const styles = StyleSheet.create({
  colour: { gap: space.s },
  mend: { gap: space.s, alignItems: "flex-start" },
  way: { flexDirection: "row", alignItems: "center", gap: space.m, borderBottomWidth: 1, paddingVertical: space.s },
  words: { flex: 1 },
});
