import type { FaultRemedy } from "@uprise/core";
import { gramsText, ingredientOf } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { useKitchen } from "../wire/queries";

interface RemedyProps {
  remedy: FaultRemedy;
  onTake?: (remedy: FaultRemedy) => void;
  taking: boolean;
}

/** A version that changes one thing: what, and the bake before and after by the same simulation. */
export function RemedyView({ remedy, onTake, taking }: RemedyProps) {
  const colours = useColours();
  const { shelf } = useKitchen(null).kitchen;
  const name = (id: string): string => (shelf.get(id) ? ingredientOf(shelf, id).name : id);
  return (
    <View style={[styles.remedy, { borderLeftColor: colours.good }]}>
      <Body strong>{remedy.title}</Body>
      {remedy.changes.map(({ ingredientId, fromG, toG }) => (
        <Body key={ingredientId}>{`${name(ingredientId)}: ${gramsText(fromG)} → ${gramsText(toG)}`}</Body>
      ))}
      {remedy.set?.oven ? <Body>{`Oven: ${Math.round(remedy.set.oven.celsius)} °C`}</Body> : null}
      {remedy.bake ? (
        <>
          <Small tone="faint">{`Baked as it is: ${remedy.bake.before}`}</Small>
          <Small tone="faint">{`Baked so: ${remedy.bake.after}`}</Small>
        </>
      ) : null}
      {onTake ? (
        <Button disabled={taking} onPress={() => onTake(remedy)} label={`Take it to the bench: ${remedy.title}`}>
          Take it to the bench
        </Button>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ remedy: { borderLeftWidth: 4, paddingLeft: space.m, gap: space.xs, alignItems: "flex-start" } });
