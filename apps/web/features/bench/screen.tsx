import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import {
  type AmountMode,
  type AnalyseInput,
  type Analysis,
  differencesOf,
  type Formula,
  type Proposal,
  type Shelf,
  opened,
  nestedId,
  type Simulation,
  withProfile,
} from "@uprise/core";
import { useRouter } from "expo-router";
import X from "lucide-react-native/icons/x";
import { useCallback, useEffect, useMemo, useReducer, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { fonts, space, type } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { TitleField } from "../../ui/title-field";
import { Body, Heading } from "../../ui/words";
import { useBaked } from "../bake/use-baked";
import { type InstrumentName, instrumentNames, instrumentTitle } from "../instruments/sentences";
import { BalanceRoom } from "../rooms/balance-room";
import { BakeRoom } from "../rooms/bake-room";
import { BodyRoom } from "../rooms/body-room";
import { FillRoom } from "../rooms/fill-room";
import { LiftRoom } from "../rooms/lift-room";
import { PartsRoom } from "../rooms/parts-room";
import { VersionsRoom } from "../rooms/versions-room";
import { currentOf, wire } from "../wire/client";
import { useBook, useFormula, useOvens, useShelf } from "../wire/queries";
import { type Change, draftReducer, isDirty, keepDraft, openDraft, rememberOpened } from "./draft";
import { takeProposal } from "./edits";
import { Findings } from "./findings";
import { Particulars } from "./particulars";
import { SaveBar } from "./save-bar";
import { Sheet } from "./sheet";
import { Stale } from "./stale";
import { Strip } from "./strip";

export type RoomName = InstrumentName | "versions" | "balance" | "parts";
const roomTitle: Record<RoomName, string> = { ...instrumentTitle, versions: "Versions", balance: "Balance", parts: "Parts" };

/** The bench of one stored formula. */
export function BenchScreen({ id }: { id: string }) {
  const { data, error, refetch } = useFormula(id);
  const shelf = useShelf();
  useEffect(() => rememberOpened(id), [id]);
  if (!data && error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the formula" />;
  return <Bench key={id} stored={data} shelf={shelf} />;
}

const isInstrument = (room: RoomName): room is InstrumentName => (instrumentNames as readonly string[]).includes(room);

function Bench({ stored, shelf }: { stored: StoredFormula; shelf: Shelf }) {
  const colours = useColours();
  const wide = useWide();
  const router = useRouter();
  const queries = useQueryClient();
  const [draft, step] = useReducer(draftReducer, stored, openDraft);
  const [room, setRoom] = useState<RoomName | null>(null);
  const [mode, setMode] = useState<AmountMode>("grams");
  const [theirs, setTheirs] = useState<StoredFormula | null>(null);
  const [replace, setReplace] = useState<string | null>(null);
  const [tried, setTried] = useState<Proposal | null>(null);
  const { base } = draft;
  const formula = useMemo(() => (tried ? takeProposal(draft.formula, tried) : draft.formula), [draft.formula, tried]);
  const { book, pending } = useBook(formula);
  const ovens = useOvens();
  const open = useCallback(() => {
    const input = opened(formula, book, base.id);
    return { ...input, oven: withProfile(formula.oven, ovens.get(formula.oven.ovenId ?? "")) };
  }, [formula, book, base.id, ovens]);
  const { analysis, fault, simulation, baking } = useBaked(open, shelf);
  useEffect(() => keepDraft(draft), [draft]);

  const nameOf = (id: string): string => shelf.get(id)?.name ?? book(nestedId(id) ?? "")?.title ?? id;

  const accept = (saved: StoredFormula): void => {
    queries.setQueryData(["formula", saved.id], saved);
    void queries.invalidateQueries({ queryKey: ["formulas"] });
    void queries.invalidateQueries({ queryKey: ["versions", saved.id] });
  };
  const save = useMutation({
    mutationFn: (onto: StoredFormula) =>
      wire.changeFormula(onto.id, onto.version, { ...draft.formula, reason: reasonOf(onto.formula, draft.formula, nameOf) }),
    onSuccess: (saved) => {
      setTheirs(null);
      step({ do: "saved", stored: saved });
      void queries.invalidateQueries({ queryKey: ["book"] });
      accept(saved);
    },
    onError: (error) => setTheirs(currentOf(error)),
  });
  const fork = useMutation({
    mutationFn: () =>
      wire.createFormula({ ...formula, title: `${formula.title} (mine)`.slice(0, 160), reason: "kept beside a newer version" }),
    onSuccess: (saved) => {
      if (theirs) step({ do: "open", stored: theirs });
      accept(saved);
      router.navigate(`/bench/${saved.id}`);
    },
  });

  const change = useCallback<Change>(
    (make, fold = false) => {
      // Whoever goes on working while a proposal is on has taken it.
      step({ do: fold && !tried ? "refine" : "edit", make: (f) => make(tried ? takeProposal(f, tried) : f) });
      setTried(null);
    },
    [tried],
  );
  const openSwap = useCallback((ingredientId: string) => {
    setReplace(ingredientId);
    setTried(null);
    setRoom("balance");
  }, []);
  const openBalance = (): void => {
    setReplace(null);
    setTried(null);
    setRoom("balance");
  };
  const set = useCallback((next: Formula, fold?: boolean): void => change(() => next, fold), [change]);
  const openParts = useCallback(() => {
    setTried(null);
    setRoom("parts");
  }, []);
  const leave = (): void => {
    setTried(null);
    setRoom(null);
  };
  const toggle = (name: RoomName): void => {
    setTried(null);
    setRoom(room === name ? null : name);
  };
  const shown = wide ? (room ?? "lift") : room;
  const failed = save.error && !theirs ? save.error.message : fork.error ? fork.error.message : null;

  const roomName = shown === null ? "" : shown === "balance" && replace !== null ? "Swap" : roomTitle[shown];
  const roomView = shown ? (
    <View style={styles.room} role="region" aria-label={roomName}>
      <View style={styles.roomHead}>
        <Heading>{roomName}</Heading>
        {wide && room === null ? null : (
          <Press onPress={leave} label={`Close ${roomName}`} style={styles.close}>
            <X size={24} color={colours.ink} />
          </Press>
        )}
      </View>
      {shown === "balance" ? (
        <BalanceRoom
          formula={draft.formula}
          book={book}
          replace={replace}
          shelf={shelf}
          tried={tried}
          onTry={setTried}
          onTake={() => {
            change((f) => f);
            setRoom(null);
          }}
        />
      ) : shown === "parts" ? (
        <PartsRoom formula={formula} shelf={shelf} book={book} onChange={set} />
      ) : shown === "versions" ? (
        <VersionsRoom id={base.id} formula={formula} book={book} shelf={shelf} onTake={set} />
      ) : analysis ? (
        <Room
          name={shown}
          formula={formula}
          analysis={analysis}
          simulation={simulation}
          baking={baking}
          open={open}
          shelf={shelf}
          onChange={set}
        />
      ) : (
        <Body>There is nothing to read yet: the sheet weighs nothing.</Body>
      )}
    </View>
  ) : null;

  return (
    <View style={styles.bench}>
      <View style={[styles.sheetSide, wide ? { maxWidth: 600, borderRightWidth: 1.5, borderColor: colours.strongRule } : null]}>
        <TitleField
          value={formula.title}
          onChange={(title) => set({ ...formula, title }, true)}
          style={[wide ? type.title : type.heading, { fontFamily: fonts.display, color: colours.ink }]}
        />
        <Strip analysis={analysis} busy={baking} open={shown !== null && isInstrument(shown) ? shown : null} onOpen={toggle} />
        <ScrollView style={styles.scroll} keyboardShouldPersistTaps="handled">
          {theirs ? (
            <Stale
              mine={formula}
              theirs={theirs}
              shelf={shelf}
              onMine={() => save.mutate(theirs)}
              onTheirs={() => {
                step({ do: "open", stored: theirs });
                accept(theirs);
                setTheirs(null);
                save.reset();
              }}
              onBoth={() => fork.mutate()}
            />
          ) : null}
          {!wide && roomView ? (
            roomView
          ) : (
            <>
              {pending ? <Loading what="Fetching the formulas it holds" /> : null}
              {fault && !pending ? <Failed title="This cannot be read." detail={fault} /> : null}
              {analysis ? <Findings findings={analysis.findings} onBalance={openBalance} /> : null}
              <Sheet
                formula={formula}
                analysis={analysis}
                shelf={shelf}
                book={book}
                id={base.id}
                mode={mode}
                onMode={setMode}
                change={change}
                onSwap={openSwap}
              />
              <Particulars
                formula={formula}
                massG={formula.lines.reduce((g, line) => g + line.grams.mid, 0)}
                onChange={set}
                onParts={openParts}
              />
            </>
          )}
        </ScrollView>
        <SaveBar
          version={base.version}
          trying={tried !== null}
          dirty={isDirty(draft)}
          saving={save.isPending}
          error={failed}
          canUndo={draft.past.length > 0}
          onUndo={() => step({ do: "undo" })}
          onSave={() => save.mutate(base)}
          onVersions={() => toggle("versions")}
        />
      </View>
      {wide ? <ScrollView style={styles.roomSide}>{roomView}</ScrollView> : null}
    </View>
  );
}

/** Why a version is saved, in the words of its differences. */
function reasonOf(before: Formula, after: Formula, nameOf: (id: string) => string): string {
  const differences = differencesOf(before, after, nameOf).filter((d) => d.what !== "Pan" && d.what !== "Notes");
  const told = differences
    .slice(0, 3)
    .map((d) => `${d.what} ${d.before} → ${d.after}`)
    .join("; ");
  return (differences.length > 3 ? `${told}; and ${differences.length - 3} more` : told).slice(0, 300);
}

function Room({
  name,
  formula,
  analysis,
  simulation,
  baking,
  open,
  shelf,
  onChange,
}: {
  name: InstrumentName;
  formula: Formula;
  analysis: Analysis;
  simulation: Simulation | null;
  baking: boolean;
  open: () => AnalyseInput;
  shelf: Shelf;
  onChange: (formula: Formula, fold?: boolean) => void;
}) {
  switch (name) {
    case "lift":
      return <LiftRoom analysis={analysis} shelf={shelf} />;
    case "body":
      return <BodyRoom analysis={analysis} shelf={shelf} />;
    case "fill":
      return (
        <FillRoom formula={formula} analysis={analysis} simulation={simulation} open={open} shelf={shelf} onChange={onChange} />
      );
    case "bake":
      return (
        <BakeRoom
          formula={formula}
          analysis={analysis}
          simulation={simulation}
          baking={baking}
          open={open}
          shelf={shelf}
          onChange={onChange}
        />
      );
  }
}

const styles = StyleSheet.create({
  bench: { flex: 1, flexDirection: "row", minHeight: 0 },
  sheetSide: { flex: 1, minWidth: 0, minHeight: 0 },
  scroll: { flex: 1 },
  roomSide: { flex: 1 },
  room: { padding: space.m, maxWidth: 620, width: "100%" },
  roomHead: { flexDirection: "row", alignItems: "center", justifyContent: "space-between", minHeight: 48 },
  close: { alignItems: "center" },
});
