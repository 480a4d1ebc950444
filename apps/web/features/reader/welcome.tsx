import { StyleSheet, View, ScrollView } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";

const ways = [
  { to: "/read", title: "Bring a recipe of your own", words: "Paste it in whatever units it has. Every line is weighed; what is unclear is asked." },
  { to: "/begin", title: "Design one from what is on hand", words: "Say what it is to be and what may not be in it; sound designs come back, weighed out." },
  { to: "/formulas", title: "Look at what is here", words: "The formulas of this kitchen, each with its lift, pan and minutes." },
] as const; // prettier-ignore

const does = [
  "Weighs what cups and spoons mean, and says how sure that is.",
  "Sets soda and powder against the acid that is really there.",
  "Bakes it in the computer: how high, how long, when it is done and by which sign.",
  "Plans the day, stands by at the counter, keeps the log, and finds what went wrong.",
] as const;

/** The first visit: what this is, one recipe to try, and where else to begin. */
export function Welcome() {
  const colours = useColours();
  useTitle("Uprise");
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>Uprise</Title>
      <Lead>
        A workbench for gluten-free bakes that soda and powder lift: loaves, muffins, scones, biscuits, cornbread, bars, batters.
      </Lead>
      <Link to="/read?sample=1" style={[styles.main, { backgroundColor: colours.ink }]}>
        <Body strong tone="paper">
          Try it with a recipe
        </Body>
      </Link>
      <Small tone="faint">Ten lines of millet muffins, read and weighed; one press more puts them on the bench.</Small>
      <View role="list" aria-label="What it does">
        {does.map((words) => (
          <View key={words} role="listitem" style={[styles.does, { borderBottomColor: colours.rule }]}>
            <Body>{words}</Body>
          </View>
        ))}
      </View>
      <Heading>Or begin with</Heading>
      {ways.map(({ to, title, words }) => (
        <Link key={to} to={to} style={styles.way}>
          <Body strong style={styles.underlined}>
            {title}
          </Body>
          <Small tone="faint">{words}</Small>
        </Link>
      ))}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 620, width: "100%" },
  main: { minHeight: 56, alignItems: "center", justifyContent: "center", paddingHorizontal: space.l },
  does: { borderBottomWidth: 1, paddingVertical: space.s },
  way: { minHeight: 48, gap: space.hair, paddingVertical: space.s, alignItems: "flex-start" },
  underlined: { textDecorationLine: "underline" },
});
