import { useMutation, useQueryClient } from "@tanstack/react-query";
import {
  formulaFrom,
  kindName,
  kinds,
  type Kind,
  measureSystems,
  type Measures,
  mended,
  type Mending,
  readRecipe,
} from "@uprise/core";
import { useRouter } from "expo-router";
import { useEffect, useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { readDevice, writeDevice } from "../../ui/device";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Body, Small, Title } from "../../ui/words";
import { minutesText } from "../instruments/sentences";
import { wire } from "../wire/client";
import { useShelf } from "../wire/queries";
import { ReadLine } from "./read-line";

const measuresName: Record<Measures, string> = { us: "US cups", metric: "Metric cups", uk: "UK", au: "Australian" };

const sample = `Millet and honey muffins

1 1/2 cups millet flour
3/4 cup tapioca starch
1 tsp xanthan gum
2 tsp baking powder
1/2 tsp bicarbonate of soda
a pinch of salt
2 large eggs
1 cup (240 ml) buttermilk
1/3 cup sunflower oil
1/2 cup honey

Bake at 190 °C (375 °F) for 18 to 22 minutes in a 12-hole muffin tin.`;

/** What the baker pasted and said so far; it survives a reload. */
const kept = { text: () => readDevice("paste") ?? "", keep: (text: string) => writeDevice("paste", text === "" ? null : text) };

/** Paste a recipe, see every line weighed, answer what is asked, mend what was not read, put it on the bench. */
export function ReaderScreen() {
  const wide = useWide();
  const router = useRouter();
  const queries = useQueryClient();
  const shelf = useShelf();
  const [text, setText] = useState(kept.text);
  const [measures, setMeasures] = useState<Measures>("us");
  const [mending, setMending] = useState<Mending>({});
  const [kind, setKind] = useState<Kind | undefined>();
  useEffect(() => kept.keep(text), [text]);

  const reading = useMemo(
    () => mended(readRecipe(text, measures, undefined, shelf), mending, measures, shelf),
    [text, measures, mending, shelf],
  );
  const begun = useMemo(() => formulaFrom(reading, measures, kind), [reading, measures, kind]);
  const asked = reading.questions.length;
  const unread = reading.lines.filter((line) => line.state === "unread").length;

  const put = useMutation({
    mutationFn: () => wire.createFormula({ ...begun.formula, reason: "as pasted" }),
    onSuccess: (saved) => {
      queries.setQueryData(["formula", saved.id], saved);
      void queries.invalidateQueries({ queryKey: ["formulas"] });
      setText("");
      setMending({});
      router.navigate(`/bench/${saved.id}`);
    },
  });

  const mend = (source: string, said: Mending[string]): void =>
    setMending((before) => ({
      ...before,
      [source]: { ...before[source], ...said, choice: { ...before[source]?.choice, ...said.choice } },
    }));
  /** The text itself is changed where one line was rewritten. */
  const rewrite = (index: number, line: string): void => {
    let seen = -1;
    setText((all) =>
      all
        .split("\n")
        .map((old) => (old.trim() !== "" && ++seen === index ? line : old))
        .join("\n"),
    );
  };

  const weighed = begun.formula.lines.length;
  const status =
    text.trim() === ""
      ? ""
      : `${weighed} ${weighed === 1 ? "line" : "lines"} weighed${asked > 0 ? `, ${asked} ${asked === 1 ? "question" : "questions"}` : ""}${unread > 0 ? `, ${unread} not read` : ""}`;

  return (
    <View style={styles.screen}>
      <ScrollView
        style={styles.scroll}
        contentContainerStyle={[styles.content, wide ? styles.wide : null]}
        keyboardShouldPersistTaps="handled"
      >
        <View style={[styles.column, wide ? styles.half : null]}>
          <Title>Bring a recipe</Title>
          <Body tone="faint">
            Paste it as it is, in whatever units it has. Every line is weighed and shown; what cannot be read is asked.
          </Body>
          <Field
            label="Recipe"
            value={text}
            onChange={setText}
            multiline
            rows={wide ? 22 : 9}
            placeholder="1½ cups sorghum flour …"
          />
          <Choice
            label="Whose cups and spoons"
            options={measureSystems.map((value) => ({ value, label: measuresName[value] }))}
            value={measures}
            onChange={setMeasures}
          />
          {text.trim() === "" ? (
            <Button kind="quiet" onPress={() => setText(sample)}>
              Try it with a sample
            </Button>
          ) : null}
        </View>
        {text.trim() === "" ? null : (
          <View style={[styles.column, wide ? styles.half : null]}>
            <View role="list" aria-label="Lines as read">
              {reading.lines.map((line, index) => (
                <ReadLine
                  key={`${index}-${line.source}`}
                  line={line}
                  questions={reading.questions.filter((q) => q.line === index)}
                  shelf={shelf}
                  onMend={(said) => mend(line.source, said)}
                  onRewrite={(next) => rewrite(index, next)}
                />
              ))}
            </View>
            <Surroundings kind={begun.formula.kind} onKind={setKind} oven={reading.oven?.celsius} minutes={reading.minutes} />
          </View>
        )}
      </ScrollView>
      <PutBar
        status={status}
        error={put.error?.message ?? null}
        disabled={weighed === 0 || put.isPending}
        onPut={() => put.mutate()}
      />
    </View>
  );
}

function Surroundings({
  kind,
  onKind,
  oven,
  minutes,
}: {
  kind: Kind;
  onKind: (kind: Kind) => void;
  oven: number | undefined;
  minutes: { low: number; high: number } | undefined;
}) {
  const colours = useColours();
  const [open, setOpen] = useState(false);
  return (
    <View style={styles.around}>
      <Press onPress={() => setOpen(!open)} aria-expanded={open} style={[styles.kind, { borderBottomColor: colours.rule }]}>
        <Small tone="faint">Kind of bake</Small>
        <Body strong>{kindName[kind]}</Body>
      </Press>
      {open
        ? kinds.map((option) => (
            <Press
              key={option}
              onPress={() => {
                onKind(option);
                setOpen(false);
              }}
              aria-pressed={option === kind}
              style={[styles.option, { borderLeftColor: option === kind ? colours.ink : colours.rule }]}
            >
              <Body strong={option === kind}>{kindName[option]}</Body>
            </Press>
          ))
        : null}
      {oven === undefined ? null : <Body>Oven {oven} °C</Body>}
      {minutes === undefined ? null : (
        <Body>The text says {minutesText({ ...minutes, mid: (minutes.low + minutes.high) / 2 })}.</Body>
      )}
    </View>
  );
}

function PutBar({
  status,
  error,
  disabled,
  onPut,
}: {
  status: string;
  error: string | null;
  disabled: boolean;
  onPut: () => void;
}) {
  const colours = useColours();
  return (
    <View style={[styles.bar, { borderTopColor: colours.strongRule }]}>
      <Small tone={error ? "stop" : "faint"} style={styles.grow} live="polite">
        {error ?? status}
      </Small>
      <Button kind="main" onPress={onPut} disabled={disabled}>
        Put on the bench
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  scroll: { flex: 1 },
  content: { padding: space.m, gap: space.l },
  wide: { flexDirection: "row", alignItems: "flex-start", gap: space.xxl, maxWidth: 1180 },
  column: { gap: space.m },
  half: { flex: 1, minWidth: 0 },
  around: { gap: space.s },
  kind: { borderBottomWidth: 1 },
  option: { borderLeftWidth: 4, paddingLeft: space.m },
  bar: {
    flexDirection: "row",
    alignItems: "center",
    gap: space.m,
    borderTopWidth: 1.5,
    paddingHorizontal: space.m,
    paddingVertical: space.xs,
  },
  grow: { flex: 1 },
});
