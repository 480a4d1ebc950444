import type { Analysis, Belief, Shelf, Simulation } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { useAsked } from "../../device/use-asked";
import { space } from "../../theme/scale";
import { Body, Heading, Small } from "../../ui/words";

interface BeliefsProps {
  at: Belief["at"];
  analysis: Analysis;
  simulation: Simulation | null;
  shelf: Shelf;
}

/** What is widely said where one stands, each with what this formula says to it. */
export function Beliefs({ at, analysis, simulation, shelf }: BeliefsProps) {
  const { data } = useAsked("beliefs", [analysis, simulation, ownOf(shelf)]);
  const beliefs = (data ?? []).filter((one) => one.at === at);
  if (beliefs.length === 0) return null;
  return (
    <View style={styles.all} role="group" aria-label="What is said">
      <Heading>What is said, and what this formula says</Heading>
      {beliefs.map(({ id, belief, answer }) => (
        <View key={id} style={styles.one}>
          <Small strong tone="faint">{`“${belief}”`}</Small>
          <Body>{answer}</Body>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: space.m }, one: { gap: space.hair } });
