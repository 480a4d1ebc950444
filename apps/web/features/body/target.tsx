import type { Consistency, Edit, Opened, Shelf } from "@uprise/core";
import { consistencies, gramsText, ownOf } from "@uprise/core/page";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Button } from "../../ui/press";
import { Body, Heading } from "../../ui/words";
import { consistencyWord } from "../instruments/sentences";
import { useLearnFlour } from "./use-learn-flour";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";

interface BodyTargetProps {
  now: Consistency;
  shelf: Shelf;
  open: () => Opened;
  edit: (edit: Edit) => void;
  /** The lines of the sheet, by id and ingredient. */
  lines: readonly { id: string; ingredientId?: string }[];
}

const words = consistencies.map((value) => ({ value, label: consistencyWord[value] }));

/** The body that one wants, as the liquid that gives it: computed, and taken on a press. */
export function BodyTarget({ now, shelf, open, edit, lines }: BodyTargetProps) {
  const [wanted, setWanted] = useState<Consistency | null>(null);
  const word = wanted ?? now;
  const input = useMemo(() => (word === now ? null : opened(open).input), [word, now, open]);
  const { data, current } = useAsked("target", input ? [word, input, ownOf(shelf)] : null);
  const target = current ? data?.target : null;
  const learnt = current ? data?.learnt : null;
  const learn = useLearnFlour((id, from) => {
    for (const line of lines) if (line.ingredientId === from) edit({ edit: "set-ingredient", lineId: line.id, ingredientId: id });
  });
  const name = target ? (shelf.get(target.ingredientId)?.name ?? target.ingredientId).toLowerCase() : "";
  return (
    <View style={styles.all} testID="body-target">
      <Heading>The body I want</Heading>
      <Choice titled label="The body I want" options={words} value={word} onChange={setWanted} />
      {word === now ? <Body>That is what it does now.</Body> : null}
      {word !== now && current && !target ? (
        <Body tone="caution">No amount of its liquid does that, or the liquid is locked.</Body>
      ) : null}
      {target ? (
        <>
          <Body>
            {gramsText(target.toG)} of {name}, {gramsText(Math.abs(target.toG - target.fromG))}{" "}
            {target.toG > target.fromG ? "more" : "less"} than now; from {gramsText(target.range.low)} to{" "}
            {gramsText(target.range.high)} it does.
          </Body>
          <Button
            onPress={() =>
              edit({
                edit: "take-changes",
                title: `Body: ${consistencyWord[word]}`,
                changes: [{ ingredientId: target.ingredientId, fromG: target.fromG, toG: target.toG }],
              })
            }
          >
            Take that much
          </Button>
        </>
      ) : null}
      {learnt ? (
        <>
          <Body>
            Or is your batter like that as it stands? Then your {(shelf.get(learnt.from)?.name ?? learnt.from).toLowerCase()} drinks{" "}
            {learnt.factor.toFixed(2)} times what the table has ({learnt.range.low.toFixed(2)} to {learnt.range.high.toFixed(2)}{" "}
            would do). It is kept in the store as yours and taken here.
          </Body>
          <Button kind="quiet" disabled={learn.isPending} onPress={() => learn.mutate(learnt)}>
            Mine is like this
          </Button>
          {learn.error ? <Body tone="caution">{learn.error.message}</Body> : null}
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: space.s } });
