import type { StoredTrial } from "@uprise/contract";
import type { Goal } from "@uprise/core";
import { goalName, goals } from "@uprise/core/page-log";
import { type Href, useRouter } from "expo-router";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Busy } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { RemedyView } from "./remedy";
import { askedOf, useNext, useTakeNext } from "./use-log";

const options = goals.map((value) => ({ value, label: goalName[value] }));

/** The next change of one thing for what is wished for, each baked before it is told. */
export function NextChange({ stored }: { stored: StoredTrial }) {
  const router = useRouter();
  const [goal, setGoal] = useState<Goal | null>(null);
  const { seen: _s, measured: _m, slips: _l, kitchen: _k, ...formula } = askedOf(stored.trial);
  const { data, error, isFetching } = useNext(goal === null ? null : { ...formula, goal });
  const take = useTakeNext(stored);
  return (
    <View style={styles.next}>
      <Heading>What next</Heading>
      <Choice label="What is wished for" options={options} value={goal ?? ("" as Goal)} onChange={setGoal} />
      <Busy on={isFetching} what="Baking what could be changed" />
      {error ? <Body tone="stop">{error.message}</Body> : null}
      {data && data.ways.length === 0 ? (
        <Body>Nothing that was tried moves it without a new fault. Now it is {data.now}.</Body>
      ) : null}
      {data?.ways.map((way) => (
        <View key={way.title} style={styles.way}>
          <Body>{way.words}</Body>
          {way.costs.length > 0 ? <Small tone="caution">{`It costs: ${way.costs.join("; ")}.`}</Small> : null}
          <RemedyView
            remedy={way}
            taking={take.isPending}
            onTake={(remedy) => take.mutate(remedy, { onSuccess: (id) => router.navigate(`/bench/${id}` as Href) })}
          />
        </View>
      ))}
      {take.error ? <Body tone="stop">{take.error.message}</Body> : null}
    </View>
  );
}

const styles = StyleSheet.create({ next: { gap: space.m }, way: { gap: space.xs } });
