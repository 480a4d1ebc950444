import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import type { AmountMode, Edit, Proposal } from "@uprise/core";
import { applyEdit, gramsOf, nestedId, openFormula, reasonOf } from "@uprise/core/page";
import { useRouter } from "expo-router";
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { dropPaper, type Paper } from "../../device/papers";
import { tabId, tellTabs } from "../../device/tab";
import { fonts, space, type } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { focusSoon } from "../../ui/focus";
import { SkipLink } from "../../ui/skip-link";
import { useKeys } from "../../ui/use-keys";
import { Failed, Loading, NotFound } from "../../ui/state";
import { TitleField } from "../../ui/title-field";
import { useKeptScroll } from "../../ui/use-kept-scroll";
import { useTitle } from "../../ui/use-title";
import { Body, Small } from "../../ui/words";
import { Button } from "../../ui/press";
import { useBaked } from "../bake/use-baked";
import { Findings } from "../balance/findings";
import type { InstrumentName } from "../instruments/sentences";
import { Strip } from "../instruments/strip";
import { currentOf, newId, wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";
import { isSettled } from "../wire/kept";
import { sendOrKeep, useWaits } from "../wire/outbox";
import { useFormula, useKitchenSoon } from "../wire/queries";
import { Aside } from "./aside";
import { BenchContext } from "./bench-context";
import { draftFrom, formulaOf, isDirty, rememberOpened, unsavedCount } from "./draft";
import { withoutText } from "./groups";
import { Particulars } from "./particulars";
import { isInstrument, type RoomName, roomTitle } from "./rooms";
import { SaveBar } from "./save-bar";
import { Sheet } from "./sheet";
import { Stale } from "./stale";
import { type Found, useDraft, useFoundDraft } from "./use-draft";
import { useAsked } from "../../device/use-asked";

interface BenchProps {
  room: RoomName | null;
  /** What is to be replaced, in the room of swaps. */
  replace: string | null;
  /** Where the open room is drawn. */
  children: ReactNode;
}

const noFaults: ReadonlyMap<string, string> = new Map();

/** The bench of one stored formula. */
export function BenchScreen({ id, ...rest }: BenchProps & { id: string }) {
  const query = useFormula(id);
  const { error, refetch } = query;
  // A draft is laid over what is stored now; over what this device had kept only where nobody answers.
  const data = query.data && isSettled(query) ? query.data : undefined;
  const found = useFoundDraft(data);
  useEffect(() => rememberOpened(id), [id]);
  if (!query.data && error) {
    if (error instanceof WireError && error.status === 404)
      return (
        <NotFound title="There is no such formula." to="/formulas" way="To the formulas">
          It may have been taken off the list, or the link is not whole.
        </NotFound>
      );
    return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  }
  if (!data || !found) return <Loading what="Fetching the formula" />;
  return <Bench key={id} stored={data} found={found} {...rest} />;
}

function Bench({ stored, found, room, replace, children }: BenchProps & { stored: StoredFormula; found: Found }) {
  const colours = useColours();
  const wide = useWide();
  const router = useRouter();
  const queries = useQueryClient();
  const { draft, step, elsewhere } = useDraft(stored, found);
  const { base, history } = draft;
  const { id } = base;
  const [mode, setMode] = useState<AmountMode>("grams");
  const [conflict, setConflict] = useState<StoredFormula | null>(null);
  const [tried, setTried] = useState<Proposal | null>(null);
  const own = formulaOf(draft);
  const trial = useMemo(
    (): Edit | null => (tried ? { edit: "take-changes", title: tried.title, changes: tried.changes } : null),
    [tried],
  );
  const formula = useMemo(() => (trial ? applyEdit(own, trial) : own), [own, trial]);
  const { kitchen, state, error: kitchenError, retry } = useKitchenSoon(formula);
  const open = useCallback(() => openFormula(formula, kitchen, id), [formula, kitchen, id]);
  const { analysis, fault, simulation, baking, unbaked } = useBaked(open, kitchen.shelf, state !== "loading");
  const faults = useAsked("faults", [own]).data ?? noFaults;
  const ways = useMemo(() => ({ open, shelf: kitchen.shelf }), [open, kitchen.shelf]);
  const dirty = isDirty(draft);
  const showSheet = wide || room === null;
  const scroll = useKeptScroll(`bench/${id}`, showSheet);
  useTitle(room ? `${roomTitle[room]}, ${formula.title}` : formula.title);
  const theirs = conflict ?? (stored.version > base.version && dirty ? stored : null);

  const nameOf = useCallback(
    (ingredientId: string): string =>
      kitchen.shelf.get(ingredientId)?.name ?? kitchen.book(nestedId(ingredientId) ?? "")?.title ?? ingredientId,
    [kitchen],
  );
  const accept = (saved: StoredFormula): void => {
    queries.setQueryData(keys.formula.of(saved.id), saved);
    void queries.invalidateQueries({ queryKey: keys.formulas.all });
    void queries.invalidateQueries({ queryKey: keys.versions.of(saved.id) });
    void queries.invalidateQueries({ queryKey: keys.book.all });
    void tabId().then((tab) => tellTabs({ what: "saved", formulaId: saved.id, version: saved.version, tab }));
  };
  const waitingKey = `formulas/${id}`;
  const save = useMutation({
    mutationFn: (onto: StoredFormula) => {
      const body = { ...own, reason: reasonOf(history, onto.formula, nameOf) };
      const write = {
        key: waitingKey,
        name: own.title,
        method: "PUT" as const,
        path: `/api/formulas/${onto.id}`,
        body,
        version: onto.version,
      };
      return sendOrKeep(write, () => wire.changeFormula(onto.id, onto.version, body));
    },
    onSuccess: (saved) => {
      // Nobody answered: it is in the outbox, and the draft stays until it has arrived.
      if (!saved) return;
      setConflict(null);
      step({ do: "saved", stored: saved });
      accept(saved);
    },
    onError: (error) => setConflict(currentOf(error)),
  });
  const waits = useWaits(waitingKey);
  const forkId = useRef(newId());
  const fork = useMutation({
    mutationFn: () =>
      wire.createFormula({
        ...own,
        id: forkId.current,
        title: `${own.title} (mine)`.slice(0, 160),
        reason: "kept beside a newer version",
      }),
    onSuccess: (saved) => {
      if (theirs) step({ do: "open", stored: theirs });
      setConflict(null);
      accept(saved);
      router.navigate(`/bench/${saved.id}`);
    },
  });

  const edit = useCallback(
    (made: Edit) => {
      const at = Date.now();
      // Whoever goes on working while a proposal is on has taken it.
      if (trial) step({ do: "edit", edit: trial, at });
      step({ do: "edit", edit: made, at });
      setTried(null);
    },
    [trial, step],
  );
  const take = useCallback(() => {
    if (trial) step({ do: "edit", edit: trial, at: Date.now() });
    setTried(null);
  }, [trial, step]);

  /** Rooms are opened on top of the sheet, so that going back closes them; from one room to the next there is one step. */
  const pushed = useRef(false);
  const enter = useCallback(
    (name: RoomName, of?: string) => {
      const to = `/bench/${id}/${name}${of === undefined ? "" : `?of=${encodeURIComponent(of)}`}` as const;
      if (room) router.replace(to);
      else {
        pushed.current = true;
        router.push(to);
      }
    },
    [id, room, router],
  );
  const leave = useCallback(() => {
    if (pushed.current && router.canGoBack()) router.back();
    else router.replace(`/bench/${id}`);
    pushed.current = false;
    focusSoon(isInstrument(room) ? `[data-testid="instrument-${room}"]` : "[data-testid=told-versions]");
  }, [id, room, router]);
  const toggle = (name: RoomName): void => (room === name ? leave() : enter(name));
  const openSwap = useCallback((ingredientId: string) => enter("swap", ingredientId), [enter]);

  const firstFault = [...faults.values()][0] ?? null;
  const maySave = dirty && !save.isPending && tried === null && firstFault === null;
  useKeys({
    escape: room === null ? undefined : leave,
    save: () => {
      if (maySave) save.mutate(base);
    },
    undo: history.steps.length > 0 ? () => step({ do: "undo" }) : undefined,
  });

  const takeUp = (paper: Paper): void => {
    const other = draftFrom(paper.body, stored);
    if (!other) return;
    for (const { edit: made } of other.history.steps) step({ do: "edit", edit: made, at: Date.now() });
    void dropPaper(paper);
  };
  const failed = save.error && !theirs ? save.error.message : fork.error ? fork.error.message : null;
  const shownRoom = room ?? (wide ? "lift" : null);

  return (
    <BenchContext
      value={{
        id,
        formula,
        own,
        unsaved: dirty,
        analysis,
        simulation,
        baking,
        unbaked,
        kitchen,
        open,
        edit,
        replace,
        tried,
        onTry: setTried,
        leave,
        room: shownRoom,
        byItself: room === null,
        faults,
      }}
    >
      <View style={styles.bench}>
        <View style={[styles.sheetSide, wide ? { maxWidth: 600, borderRightWidth: 1.5, borderColor: colours.strongRule } : null]}>
          <TitleField
            value={formula.title}
            onChange={(title) => edit({ edit: "rename", title })}
            error={faults.get("title")}
            style={[wide ? type.title : type.heading, { fontFamily: fonts.display, color: colours.ink }]}
          />
          <Strip
            analysis={analysis}
            busy={baking}
            note={[withoutText(formula, kitchen), unbaked].filter((part) => part !== null).join(" ")}
            open={isInstrument(shownRoom) ? shownRoom : null}
            onOpen={(name: InstrumentName) => toggle(name)}
          />
          {wide ? <SkipLink to="bench-room">Past the sheet, to the room</SkipLink> : null}
          {theirs ? (
            <ScrollView style={styles.stale}>
              <Stale
                mine={own}
                theirs={theirs}
                nameOf={nameOf}
                onMerge={
                  unsavedCount(draft) === null
                    ? null
                    : () => {
                        step({ do: "rebase", stored: theirs });
                        accept(theirs);
                        setConflict(null);
                        save.reset();
                      }
                }
                onMine={() => save.mutate(theirs)}
                onTheirs={() => {
                  step({ do: "open", stored: theirs });
                  accept(theirs);
                  setConflict(null);
                  save.reset();
                }}
                onBoth={() => fork.mutate()}
              />
            </ScrollView>
          ) : null}
          <ScrollView
            {...scroll}
            style={[styles.scroll, showSheet ? null : styles.away]}
            keyboardShouldPersistTaps="handled"
            testID="sheet-scroll"
          >
            <Aside papers={found.aside} fits={(paper) => draftFrom(paper.body, stored) !== null} onTakeUp={takeUp} />
            {elsewhere ? (
              <Small tone="caution" style={styles.note}>
                {`Another tab has ${elsewhere.unsaved} ${elsewhere.unsaved === 1 ? "change" : "changes"} of this formula unsaved. Whoever saves second is shown both.`}
              </Small>
            ) : null}
            {state === "failed" ? (
              <View style={styles.note} role="alert">
                <Body>{`What this kitchen has of its own did not come: ${kitchenError ?? ""} Readings stand on what ships with Uprise.`}</Body>
                <Button onPress={retry}>Try again</Button>
              </View>
            ) : null}
            {state === "loading" && fault ? <Loading what="Fetching what it holds" /> : null}
            {fault && state !== "loading" ? <Failed title="This cannot be read." detail={fault} /> : null}
            {analysis ? <Findings findings={analysis.findings} ways={ways} onBalance={() => enter("balance")} /> : null}
            <Sheet
              formula={formula}
              analysis={analysis}
              kitchen={kitchen}
              id={id}
              mode={mode}
              onMode={setMode}
              edit={edit}
              onSwap={openSwap}
              faults={faults}
            />
            <Particulars
              formula={formula}
              massG={formula.lines.reduce((g, line) => g + gramsOf(line), 0)}
              analysis={analysis}
              shelf={kitchen.shelf}
              edit={edit}
              onRoom={enter}
              faults={faults}
            />
          </ScrollView>
          {wide ? null : <View style={[styles.roomPhone, room === null ? styles.away : null]}>{children}</View>}
          <SaveBar
            version={base.version}
            trying={tried === null ? null : tried.title}
            onTake={() => {
              take();
              if (room === "balance" || room === "swap") leave();
            }}
            onPutBack={() => setTried(null)}
            dirty={dirty}
            waits={waits}
            saving={save.isPending}
            error={failed}
            fault={firstFault}
            canUndo={history.steps.length > 0}
            onUndo={() => step({ do: "undo" })}
            onSave={() => save.mutate(base)}
            onVersions={() => toggle("versions")}
          />
        </View>
        {wide ? (
          <View style={styles.roomSide} tabIndex={-1} testID="bench-room">
            {children}
          </View>
        ) : null}
      </View>
    </BenchContext>
  );
}

const styles = StyleSheet.create({
  bench: { flex: 1, flexDirection: "row", minHeight: 0 },
  sheetSide: { flex: 1, minWidth: 0, minHeight: 0 },
  scroll: { flex: 1 },
  stale: { flexGrow: 0, maxHeight: "55%" },
  away: { display: "none" },
  note: { padding: space.m, gap: space.s },
  roomPhone: { flex: 1, minHeight: 0 },
  roomSide: { flex: 1, minWidth: 0 },
});
