import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FiguresAre, Kind, Line, Measures, Mending, Question, Reading, Vessel } from "@uprise/core";
import { fahrenheitFromCelsius, isOpen, isWeighed, languages, mendingKey, methodName, ownOf } from "@uprise/core/page";
import { type Href, useLocalSearchParams, useRouter } from "expo-router";
import { useEffect, useMemo, useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Button } from "../../ui/press";
import { Busy, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { ownNames, rememberName } from "../../device/own-names";
import { Body, Small, Title } from "../../ui/words";
import { languageNames } from "./language-names";
import { KindPicker, MeasuresPicker } from "../instruments/kind-picker";
import { minutesText } from "../instruments/sentences";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { sendOrKeep } from "../wire/outbox";
import { useKitchenSoon } from "../wire/queries";
import { BringFile } from "./bring-file";
import { type Pasted, usePasted } from "./pasted";
import { ReadLine } from "./read-line";
import { sample } from "./sample";
import { gramsOfLines, ReadPart, segmentsOf } from "./read-part";
import { useAsked } from "../../device/use-asked";

const tongues = languages.map((value) => ({ value, label: languageNames[value] }));

const nothingRead: Reading = { lines: [], questions: [] };

/** Paste a recipe, see every line weighed, answer what is asked, mend what was not read, put it on the bench. */
export function ReaderScreen() {
  const { pasted, set } = usePasted();
  const { sample: wished } = useLocalSearchParams<{ sample?: string }>();
  const blank = pasted?.text.trim() === "";
  useTitle("Bring a recipe");
  // Who comes to try it finds a recipe; what was pasted before is never written over.
  useEffect(() => {
    if (wished !== undefined && blank) set((before) => ({ ...before, text: sample, mending: {} }));
  }, [wished, blank, set]);
  if (!pasted) return <Loading what="Looking for what you pasted" />;
  return <Reader pasted={pasted} set={set} />;
}

/** What the figures without a unit are: asked once for all of them, and open to be said otherwise. */
function Figures({
  question,
  said,
  onSay,
}: {
  question: Question | undefined;
  said: FiguresAre | undefined;
  onSay: (next: FiguresAre) => void;
}) {
  if (!question && said === undefined) return null;
  return (
    <>
      {question ? <Body tone="caution">{question.message}</Body> : <Body>Figures without a unit:</Body>}
      <Choice
        label="Figures without a unit"
        options={figureChoices}
        value={said ?? ""}
        onChange={(next) => next !== "" && onSay(next)}
      />
    </>
  );
}
const figureChoices: { value: FiguresAre | ""; label: string }[] = [
  { value: "g", label: "They are grams" },
  { value: "unknown", label: "They are not" },
];

function Reader({ pasted, set }: { pasted: Pasted; set: (change: (before: Pasted) => Pasted) => void }) {
  const wide = useWide();
  const router = useRouter();
  const queries = useQueryClient();
  const { kitchen } = useKitchenSoon(null);
  const { shelf } = kitchen;
  const { text, measures, mending, kind, language, batch, figures, pages } = pasted;
  const told = useMemo(() => ({ language, batch, figures }), [language, batch, figures]);
  // Another recipe may be in another language, have no table, and say its units.
  const setText = (next: string): void =>
    set(({ language: _l, batch: _b, figures: _f, pages: _p, ...before }) =>
      next.trim() === "" ? { ...before, text: next } : { ...before, ...told, ...(pages ? { pages } : {}), text: next },
    );
  const [putting] = useState(newId);
  const id = useRef(putting);

  const [own, setOwn] = useState(ownNames);
  const { data, current, fault } = useAsked(
    "read",
    text.trim() === "" ? null : [text, measures, mending, kind, ownOf(shelf), own, told],
  );
  const reading: Reading = data?.reading ?? nothingRead;
  const begun = data?.begun ?? null;
  const asked = reading.questions.length;
  const unread = reading.lines.filter((line) => line.state === "unread").length;

  const put = useMutation({
    mutationFn: async () => {
      if (!begun) throw new Error("It is being read; a moment.");
      const { pasted: from } = begun;
      const body = {
        ...begun,
        ...(from && pages ? { pasted: { ...from, pages } } : {}),
        id: id.current,
        reason: pages ? "as read from its page" : "as pasted",
      };
      const write = { key: `formulas/${body.id}/new`, name: begun.title, method: "POST" as const, path: "/api/formulas", body };
      const now = new Date().toISOString();
      // Where nobody answers it is on the bench all the same, and goes out later.
      return (
        (await sendOrKeep(write, () => wire.createFormula(body))) ?? {
          id: body.id,
          version: 1,
          createdAt: now,
          updatedAt: now,
          formula: begun,
        }
      );
    },
    onSuccess: (saved) => {
      id.current = newId();
      queries.setQueryData(keys.formula.of(saved.id), saved);
      void queries.invalidateQueries({ queryKey: keys.formulas.all });
      set(({ measures: kept }) => ({ text: "", measures: kept, mending: {} }));
      router.navigate(`/bench/${saved.id}` as Href);
    },
  });

  const mend = (line: Line, said: Mending[string]): void => {
    const source = mendingKey(line);
    // What a name means is remembered; what a single line weighs is not.
    if (said.ingredientId !== undefined) setOwn(rememberName(line.name, said.ingredientId));
    set((before) => {
      const old = before.mending[source];
      return {
        ...before,
        mending: { ...before.mending, [source]: { ...old, ...said, choice: { ...old?.choice, ...said.choice } } },
      };
    });
  };
  /** The text itself is changed where one line was rewritten. */
  const rewrite = (at: number, line: string): void => {
    let seen = -1;
    // A text that holds several things is one line of the paste.
    const index = reading.lines.slice(0, at + 1).filter(({ item }) => (item ?? 0) === 0).length - 1;
    setText(
      text
        .split("\n")
        .map((old) => (old.trim() !== "" && ++seen === index ? line : old))
        .join("\n"),
    );
  };

  const weighed = begun?.lines.filter(isWeighed).length ?? 0;
  const open = begun?.lines.filter(isOpen).length ?? 0;
  const status =
    text.trim() === ""
      ? ""
      : !begun
        ? "Reading it …"
        : `${weighed} ${weighed === 1 ? "line" : "lines"} weighed${asked > 0 ? `, ${asked} ${asked === 1 ? "question" : "questions"}` : ""}${unread > 0 ? `, ${unread} not read` : ""}${open > 0 ? `; ${open} ${open === 1 ? "stays" : "stay"} open on the bench` : ""}`;

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
          <MeasuresPicker
            label="Whose cups and spoons"
            measures={measures}
            onMeasures={(next: Measures) => set((before) => ({ ...before, measures: next }))}
          />
          {text.trim() === "" ? (
            <>
              <Button kind="quiet" onPress={() => setText(sample)}>
                Try it with a sample
              </Button>
              <Button onPress={() => router.navigate("/page" as Href)} style={styles.start}>
                Photograph a page, or open a picture
              </Button>
              <BringFile measures={measures} onRead={(found) => set(() => found)} />
            </>
          ) : null}
        </View>
        {text.trim() === "" ? null : (
          <View style={[styles.column, wide ? styles.half : null]}>
            {reading.language === undefined && language === undefined && unread === 0 ? null : (
              <>
                {reading.language === undefined ? null : (
                  <Body tone="caution">{`Read as ${languageNames[reading.language]}, word by word; names stand in English.`}</Body>
                )}
                <Choice
                  label="What it is written in"
                  options={tongues}
                  value={language ?? reading.language ?? "en"}
                  onChange={(next) => set((before) => ({ ...before, language: next }))}
                />
              </>
            )}
            {begun && weighed === 0 ? (
              <Body tone="caution">
                No food with an amount was found. What each line was taken for stands below; one such as “200 g millet flour” is
                weighed.
              </Body>
            ) : null}
            {reading.batches ? (
              <>
                <Body tone={reading.batches.open ? "caution" : "ink"}>
                  {`It has ${reading.batches.names.length} amounts on each line${reading.batches.open ? "; the first is taken until you say which" : ""}.`}
                </Body>
                <Choice
                  label="Which of them"
                  options={reading.batches.names.map((label, k) => ({ value: `${k}`, label }))}
                  value={reading.batches.open ? "" : `${reading.batches.taken}`}
                  onChange={(next) => set((before) => ({ ...before, batch: Number(next) }))}
                />
              </>
            ) : null}
            <Figures
              question={reading.questions.find((q) => q.kind === "figures")}
              said={figures}
              onSay={(next) => set((before) => ({ ...before, figures: next }))}
            />
            <View role="list" aria-label="Lines as read">
              {segmentsOf(reading).map(({ part, lines }, order) => (
                <ReadPart key={`${part?.id ?? ""} ${order}`} part={part} grams={gramsOfLines(lines.map(({ line }) => line))}>
                  {lines.map(({ line, index }) => (
                    <ReadLine
                      key={`${index}-${line.source}`}
                      line={line}
                      questions={reading.questions.filter((q) => q.line === index && q.kind !== "figures")}
                      account={reading.accounted?.find(({ ref, as }) => ref === index && as !== "line" && as !== "question")}
                      shelf={shelf}
                      onMend={(said) => mend(line, said)}
                      onRewrite={(next) => rewrite(index, next)}
                    />
                  ))}
                </ReadPart>
              ))}
            </View>
            {begun ? (
              <Surroundings
                kind={begun.kind}
                onKind={(next) => set((before) => ({ ...before, kind: next }))}
                reading={reading}
                oven={begun.oven.celsius}
                vessel={begun.vessel}
              />
            ) : (
              <Busy on={fault === null} what="Reading it" />
            )}
          </View>
        )}
      </ScrollView>
      <PutBar
        status={status}
        error={put.error?.message ?? fault?.message ?? null}
        disabled={weighed === 0 || put.isPending || !current}
        onPut={() => put.mutate()}
      />
    </View>
  );
}

function Surroundings({
  kind,
  onKind,
  reading,
  oven,
  vessel,
}: {
  kind: Kind;
  onKind: (kind: Kind) => void;
  reading: Reading;
  oven: number;
  vessel: Vessel;
}) {
  const { minutes, oven: said, pan, coreC, process } = reading;
  const degrees = `${Math.round(oven)} °C${said?.dial === "F" ? ` (${Math.round(fahrenheitFromCelsius(oven))} °F)` : ""}`;
  return (
    <View style={styles.around}>
      <KindPicker kind={kind} onKind={onKind} />
      {said ? (
        <Body>{`Oven ${degrees}${said.mode === "fan" ? ", fan" : ""}`}</Body>
      ) : (
        <Body tone="caution">{`The text names no oven. ${degrees} is taken until you set it on the bench.`}</Body>
      )}
      {pan ? (
        <Body>{`Pan: ${panWords(vessel)}`}</Body>
      ) : (
        <Body tone="caution">{`The text names no pan. The usual one is taken: ${panWords(vessel)}.`}</Body>
      )}
      {process ? processWords(process).map((words) => <Body key={words}>{words}</Body>) : null}
      {coreC === undefined ? null : <Body>{`Done at ${Math.round(coreC)} °C in the middle, the text says.`}</Body>}
      {minutes === undefined ? null : (
        <Body>The text says {minutesText({ ...minutes, mid: (minutes.low + minutes.high) / 2 })}.</Body>
      )}
    </View>
  );
}

/** The way it is made, as the text tells it. */
function processWords({ method, rests, soaks, tin, shape }: NonNullable<Reading["process"]>): string[] {
  const spans = (all: typeof rests): string =>
    all.map(({ minutes: { low, high }, of, place }) => `${of ? `${of}, ` : ""}${minutesText({ low, mid: (low + high) / 2, high })}${place ? ` (${place})` : ""}`).join("; "); // prettier-ignore
  const { count, pieceG, thicknessMm, diameterMm, cut } = shape ?? {};
  const shaped = [
    count === undefined ? "" : `${count} pieces`,
    pieceG === undefined ? "" : `of ${pieceG} g`,
    thicknessMm === undefined ? "" : `${thicknessMm} mm thick`,
    diameterMm === undefined ? "" : `${diameterMm} mm across`,
    cut === undefined ? "" : `cut in ${cut}`,
  ].filter((one) => one !== "");
  return [
    method ? `Mixed by: ${methodName[method].toLowerCase()}` : "",
    soaks.length > 0 ? `Soaks: ${spans(soaks)}` : "",
    tin ? `In its tin: ${tin.minutes === null ? "until it is cold" : spans([{ minutes: tin.minutes }])}` : "",
    rests.length > 0 ? `Rests: ${spans(rests)}` : "",
    shaped.length > 0 ? `Shaped: ${shaped.join(", ")}` : "",
  ].filter((one) => one !== "");
}

const shapes: Record<Vessel["shape"], string> = {
  rectangular: "a tin",
  round: "a round tin",
  muffin: "muffin cups",
  ring: "a ring tin",
  free: "free on a tray",
  griddle: "a griddle",
};
const panWords = ({ shape, lengthMm, widthMm, diameterMm, pieces }: Vessel): string => {
  const cm = (mm: number): string => String(Math.round(mm / 5) / 2);
  const size = lengthMm && widthMm ? ` ${cm(lengthMm)} × ${cm(widthMm)} cm` : diameterMm ? ` ${cm(diameterMm)} cm across` : "";
  return `${shapes[shape]}${size}${pieces && pieces > 1 ? `, ${pieces} of them` : ""}`;
};

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
  start: { alignSelf: "flex-start" },
  around: { gap: space.s },
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
