import { useRouter, type Href } from "expo-router";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Lead, Small, Title } from "../../ui/words";
import { useSeasons } from "./use-season";

/** Seasons of trials: few bakes, chosen so that they tell most. */
export function SeasonsScreen() {
  useTitle("Seasons of trials");
  const router = useRouter();
  const colours = useColours();
  const { data, error, refetch } = useSeasons();
  if (error && !data) return <Failed title="The seasons did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the seasons" />;
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>Seasons of trials</Title>
      <Body>
        Say what should be better, what may move and how many bakes there is time for: these are the bakes that tell most.
      </Body>
      <Button kind="main" style={styles.left} onPress={() => router.navigate("/log/season/new" as Href)}>
        Begin a season
      </Button>
      {data.length === 0 ? (
        <Empty title="No season was begun yet.">
          <Body>Five to eight bakes of one formula are enough to learn what three or four things do to it.</Body>
        </Empty>
      ) : (
        <View role="list" aria-label="Seasons">
          {data.map(({ id, season }) => (
            <View key={id} role="listitem" style={[styles.row, { borderBottomColor: colours.rule }]}>
              <Link to={`/log/season/${id}`} style={styles.link}>
                <Lead>{season.title}</Lead>
                <Small tone="faint">{`${season.formula.title}; ${season.factors.length} ${season.factors.length === 1 ? "thing moves" : "things move"}, ${season.bakes} bakes`}</Small>
              </Link>
            </View>
          ))}
        </View>
      )}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.l, maxWidth: 720, width: "100%" },
  left: { alignSelf: "flex-start" },
  row: { borderBottomWidth: 1 },
  link: { paddingVertical: space.s },
});
