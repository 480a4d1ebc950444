import type { Formula } from "@uprise/core";
import { openFormula, ownOf } from "@uprise/core/page";
import { useMemo } from "react";
import { StyleSheet, View } from "react-native";
import { opened } from "../../device/opened";
import { useAsked } from "../../device/use-asked";
import { space } from "../../theme/scale";
import { PaperPage, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Title } from "../../ui/words";
import { useFormula, useKitchen } from "../wire/queries";
import { ManyTable, manyWords, useMany } from "./many-room";

interface ManyPageProps {
  id: string;
  pieces: number;
  bowlL: number;
  places: number;
}

/** Many of a formula on one page: what each batch weighs, how many loads, what does not grow with it. */
export function ManyPage({ id, ...wanted }: ManyPageProps) {
  const { data, error, refetch } = useFormula(id);
  useTitle(data ? `${wanted.pieces} of ${data.formula.title}` : "A page to print");
  if (error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the formula" />;
  return <Page formula={data.formula} {...wanted} />;
}

function Page({ formula, pieces, bowlL, places }: Omit<ManyPageProps, "id"> & { formula: Formula }) {
  const [size, setSize] = usePaper();
  const { kitchen } = useKitchen(formula);
  const toBake = useMemo(() => {
    const { input } = opened(() => openFormula(formula, kitchen));
    return input ? ([input, [], ownOf(kitchen.shelf), undefined] as const) : null;
  }, [formula, kitchen]);
  const { data: made, pending } = useAsked("paper", toBake ? [...toBake] : null);
  const onePieces = Math.max(1, made?.analysis.fill.pieces ?? 1);
  const { data, error, refetch } = useMany(formula, onePieces, pieces, bowlL, places);
  if (error) return <Failed title="This was not reckoned." detail={error.message} onRetry={() => void refetch()} />;
  if (pending || !data) return <Loading what="Reckoning it through" />;
  const { mix, bake } = manyWords(data);
  return (
    <PaperPage size={size} onSize={setSize}>
      <View style={styles.page}>
        <Title>{`${formula.title}, ${pieces} pieces`}</Title>
        <Body>{`${mix}.`}</Body>
        <Body>{`${bake}, at ${Math.round(formula.oven.celsius)} °C.`}</Body>
        <ManyTable formula={formula} data={data} onePieces={onePieces} name={(one) => kitchen.shelf.get(one)?.name ?? one} />
        <Heading>What does not grow with it</Heading>
        {data.otherwise.map((sentence) => (
          <Body key={sentence}>{sentence}</Body>
        ))}
      </View>
    </PaperPage>
  );
}

const styles = StyleSheet.create({ page: { gap: space.m, width: "100%" } });
