import { type ReactNode, useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import type { Colours } from "../../theme/colours";
import { space } from "../../theme/scale";
import { schemes, useColours, useTheme } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { NameSearch } from "../../ui/name-search";
import { Notice } from "../../ui/notice";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { Body, Figure, Heading, Lead, Small, Title } from "../../ui/words";
import { Fact, Table } from "../../ui/facts";
import { Spine } from "../formula/spine";
import { Strip } from "../instruments/strip";
import { useAsked } from "../../device/use-asked";

/** A batter with spare soda, one in balance and one without lift, for the drawings. */
const specimens = [
  {
    name: "Soda over",
    lines: [
      ["sorghum-flour", 200],
      ["whole-milk", 190],
      ["egg", 50],
      ["soda", 5],
    ],
  },
  {
    name: "In balance",
    lines: [
      ["sorghum-flour", 200],
      ["kefir", 230],
      ["egg", 50],
      ["soda", 1.8],
      ["powder-aluminium-free", 6],
    ],
  },
  {
    name: "Acid over",
    lines: [
      ["sorghum-flour", 200],
      ["kefir", 250],
      ["lemon-juice", 40],
      ["soda", 1.5],
    ],
  },
  {
    name: "No lift, stiff",
    lines: [
      ["red-lentil-flour", 200],
      ["water", 110],
    ],
  },
] as const;

const roles: (keyof Colours)[] = ["ink", "faint", "soda", "acid", "gas", "set", "heat", "caution", "stop", "good"];

/** Every component in every state, on one page. */
export function LookScreen() {
  const colours = useColours();
  const { scheme, setScheme } = useTheme();
  const [text, setText] = useState("230");
  const [choice, setChoice] = useState<"a" | "b" | "c">("b");
  return (
    <ScrollView style={styles.scroll} contentContainerStyle={styles.content}>
      <Title>The look</Title>
      <Choice label="Scheme" options={schemes.map((value) => ({ value, label: value }))} value={scheme} onChange={setScheme} />
      <Section name="Words">
        <Title>Title 27</Title>
        <Heading>Heading 20</Heading>
        <Figure>Figure 1234567890</Figure>
        <Lead>Lead 18, for names in lists</Lead>
        <Body>Body 16, for everything that is read.</Body>
        <Small tone="faint">Small 14, for what stands beside.</Small>
      </Section>
      <Section name="Colours by role">
        <View style={styles.swatches}>
          {roles.map((role) => (
            <View key={role} style={styles.swatch}>
              <View style={[styles.patch, { backgroundColor: colours[role] }]} />
              <Small>{role}</Small>
            </View>
          ))}
        </View>
        <View style={styles.row}>
          <Spine soda={20} acid={0} most={20} />
          <Spine soda={0} acid={12} most={20} />
          <Spine soda={14} acid={14} most={20} />
          <Small>soda dotted to the left, acid hatched to the right</Small>
        </View>
      </Section>
      <Section name="Buttons">
        <View style={styles.row}>
          <Button kind="main" onPress={() => undefined}>
            Main
          </Button>
          <Button onPress={() => undefined}>Plain</Button>
          <Button kind="quiet" onPress={() => undefined}>
            Quiet
          </Button>
        </View>
        <View style={styles.row}>
          <Button kind="main" disabled onPress={() => undefined}>
            Main, off
          </Button>
          <Button disabled onPress={() => undefined}>
            Plain, off
          </Button>
        </View>
      </Section>
      <Section name="Fields">
        <Field label="With a value" value={text} onChange={setText} />
        <Field label="Empty, with a hint" value="" onChange={() => undefined} placeholder="1½ tsp" hint="Any unit will do." />
        <Field
          label="In error"
          value="some"
          onChange={() => undefined}
          error="“some” is no amount; 120 g, 1½ tsp or 45 % would be right."
        />
        <NumberField label="A number with limits" value={175} unit="°C" least={60} most={320} onChange={() => undefined} />
        <Field label="Several lines" value={"first\nsecond"} onChange={() => undefined} multiline rows={3} />
        <NameSearch
          label="Search with finds"
          query="so"
          onQuery={() => undefined}
          found={[{ id: "a", name: "Sorghum flour", aliases: ["jowar flour"] }]}
          onPick={() => undefined}
        />
        <NameSearch label="Search without" query="xyz" onQuery={() => undefined} found={[]} onPick={() => undefined} />
      </Section>
      <Section name="Choice">
        <Choice
          label="Three"
          options={[
            { value: "a" as const, label: "One" },
            { value: "b" as const, label: "Two" },
            { value: "c" as const, label: "Three" },
          ]}
          value={choice}
          onChange={setChoice}
        />
      </Section>
      <Section name="Notices">
        <Notice gravity="stop" title="Something that stops the bake." />
        <Notice gravity="caution" title="Something to be careful of.">
          <Body>What to do.</Body>
        </Notice>
        <Notice gravity="note" title="Something to know." />
      </Section>
      <Section name="Facts and tables">
        <Fact
          name="A number with its reason"
          value="6.5–7.1"
          why="What it was computed from, in plain words."
          source="Where the rule comes from."
        />
        <Table
          label="A table"
          head={["line", "soda", "acid"]}
          rows={[
            { key: "a", cells: ["Kefir", "–", "17"] },
            { key: "b", cells: ["Together", "24", "26"], strong: true },
          ]}
        />
      </Section>
      <Section name="Instruments">
        {specimens.map(({ name, lines }) => (
          <View key={name} style={styles.specimen}>
            <Small strong>{name}</Small>
            <Specimen lines={lines} />
          </View>
        ))}
        <Small strong>Nothing to read</Small>
        <Strip analysis={null} open={null} onOpen={() => undefined} />
      </Section>
      <Section name="States of a screen">
        <Loading what="Fetching the formula" />
        <Empty title="No formula yet">
          <Body>Bring a recipe, or begin from a kind of bake.</Body>
        </Empty>
        <Failed title="The list did not come." detail="The server does not answer." onRetry={() => undefined} />
      </Section>
    </ScrollView>
  );
}

function Section({ name, children }: { name: string; children: ReactNode }) {
  const colours = useColours();
  return (
    <View style={[styles.section, { borderTopColor: colours.strongRule }]}>
      <Heading>{name}</Heading>
      {children}
    </View>
  );
}

/** The four instruments of a few lines, without the oven. */
function Specimen({ lines }: { lines: readonly (readonly [string, number])[] }) {
  const input = useMemo(
    () => ({ kind: "loaf" as const, lines: lines.map(([ingredientId, grams]) => ({ ingredientId, grams })) }),
    [lines],
  );
  const { data } = useAsked("readings", [input, none]);
  return <Strip analysis={data} open={null} onOpen={() => undefined} />;
}
const none: readonly never[] = [];

const styles = StyleSheet.create({
  scroll: { flex: 1 },
  content: { padding: space.m, gap: space.l, maxWidth: 720, width: "100%" },
  section: { borderTopWidth: 1.5, paddingTop: space.s, gap: space.m },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.m, alignItems: "center" },
  swatches: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  swatch: { width: 64, gap: space.xs },
  patch: { height: 36 },
  specimen: { gap: space.xs },
});
