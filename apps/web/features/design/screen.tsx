import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Allergen, Design, Consistency, Kind, Shelf, Vessel, Wish, WishedLift } from "@uprise/core";
import { allergens, ownOf } from "@uprise/core/page";
import { ask } from "../../device/workers";
import { designVessels, formulaOf, defaultsOf, lifts } from "@uprise/core/page-bench";
import { type Href, useLocalSearchParams, useRouter } from "expo-router";
import { useEffect, useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Busy } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen, useVessels } from "../wire/queries";
import { listText } from "../instruments/sentences";
import { Kinds, Pans } from "./choices";
import { Designed, type Knobs } from "./designed";
import { useOnHand } from "../wire/on-hand";
import { OnHand } from "./on-hand";
import { Related } from "./related";
import { UseUp } from "./use-up";

const liftWords: Record<WishedLift, string> = {
  powder: "Powder",
  both: "Soda and powder",
  "soda-acid": "Soda and acid",
  "self-raising": "Self-raising blend",
  fizzy: "Something fizzy",
  air: "Whisked air",
};
const bodies: { value: Consistency; label: string }[] = [
  { value: "pourable", label: "It pours" },
  { value: "spoonable", label: "For a spoon" },
  { value: "scoopable", label: "For a scoop" },
  { value: "soft-dough", label: "A soft dough" },
  { value: "firm-dough", label: "A firm dough" },
];
const MOST_PANS = 8;

/** The designs follow so long after the last wish, ms. */
const FOLLOWS_MS = 700;
const variantWords = { plain: "As usual", savoury: "Savoury", eggless: "Without egg" } as const;
type Variant = keyof typeof variantWords;

/** From kind, pan, shelf, diet and wish to designs side by side, one of which goes to the bench. */
export function DesignScreen() {
  const router = useRouter();
  const wide = useWide();
  const queries = useQueryClient();
  const { kitchen } = useKitchen(null);
  const { pans } = useVessels();
  const { ticked, tick, usual, pending: shelfIsOpen } = useOnHand();
  const [kind, setKind] = useState<Kind>("muffin");
  const [panId, setPanId] = useState("");
  const [pieces, setPieces] = useState<number | undefined>();
  const [pieceG, setPieceG] = useState<number | undefined>();
  const [lift, setLift] = useState<WishedLift | "">("");
  const [variant, setVariant] = useState<Variant>("plain");
  const [avoid, setAvoid] = useState<Allergen[]>([]);
  const [useUp, setUseUp] = useState<NonNullable<Wish["useUp"]>>([]);
  const [more, setMore] = useState(false);
  const [body, setBody] = useState<Consistency | "">("");
  const [toRim, setToRim] = useState(false);
  const [binder, setBinder] = useState("");
  const [begun, setStart] = useState<Wish | null>(null);
  const { from } = useLocalSearchParams<{ from?: string }>();
  const start = from === undefined ? null : begun;
  const gone = useStart(from, kitchen.shelf, ticked, (wished) => {
    setStart(wished);
    setKind(wished.kind);
    setUseUp(wished.useUp ?? []);
    setVariant(wished.variant ?? "plain");
  });
  useTitle("Design a formula");
  const suits = designVessels(kind, pans);
  const pan: Vessel | undefined = suits.find(({ id }) => id === panId)?.vessel;
  const wish: Wish = {
    kind,
    ...(start && start.kind === kind
      ? {
          rich: start.rich,
          sweet: start.sweet,
          vessel: start.vessel,
          oven: start.oven,
          ...(start.prefer ? { prefer: start.prefer } : {}),
        }
      : {}),
    have: [...new Set([...ticked, ...(start?.have ?? [])])].filter((id) => kitchen.shelf.get(id) !== undefined),
    ...(pan ? { vessel: pan } : {}),
    ...(toRim ? { toRim } : {}),
    ...(body === "" ? {} : { body }),
    ...(binder === "" ? {} : { binder }),
    ...(pieces === undefined ? {} : { pieces }),
    ...(pieceG === undefined ? {} : { pieceG }),
    ...(lift === "" ? {} : { lift }),
    ...(variant === "plain" ? {} : { variant }),
    ...(avoid.length > 0 ? { avoid } : {}),
    ...(useUp.length > 0 ? { useUp } : {}),
  };
  const asked = useMutation({ mutationFn: async (wanted: Wish) => ({ wanted, ...(await wire.design(wanted)) }) });
  const related = useMutation({ mutationFn: async (wanted: Wish) => ({ wanted, ...(await wire.family(wanted)) }) });
  const formulaId = useRef(newId());
  const take = useMutation({
    mutationFn: async ({ design, wanted, knobs }: { design: Design; wanted: Wish; knobs: Knobs }) => {
      const chosen =
        Object.keys(knobs).length === 0
          ? design
          : (await wire.design({ ...wanted, ...knobs })).designs.find(({ id }) => id === design.id);
      if (!chosen) throw new Error("With these sliders nothing sound comes of it; a little less of one of them may do.");
      return wire.createFormula({ ...formulaOf(chosen, "metric"), id: formulaId.current, reason: "designed from the shelf" });
    },
    onSuccess: (saved) => {
      formulaId.current = newId();
      void queries.invalidateQueries({ queryKey: keys.formulas.all });
      router.navigate(`/bench/${saved.id}` as Href);
    },
  });
  const answer = asked.data;
  // Where there is room for them the designs follow the wishes; a moment after the last of them.
  const wanted = JSON.stringify(wish);
  const { mutate: askFor } = asked;
  useEffect(() => {
    if (!wide || shelfIsOpen) return;
    const timer = setTimeout(() => askFor(JSON.parse(wanted) as Wish), FOLLOWS_MS);
    return () => clearTimeout(timer);
  }, [wide, shelfIsOpen, wanted, askFor]);
  const stale = answer !== undefined && JSON.stringify(answer.wanted) !== JSON.stringify(wish);
  const wishes = (
    <>
      <Title>Design a formula</Title>
      <Lead>Say what it is to be and what is on hand; what comes of it is weighed out, baked in the computer and sound.</Lead>
      {gone === null ? null : (
        <Body
          strong
        >{`${gone.title} is the start: as rich and as sweet, in the same pan.${gone.names.length > 0 ? ` Without ${listText(gone.names)}.` : ""}`}</Body>
      )}
      <Heading>What it is to be</Heading>
      <Kinds
        kind={kind}
        onKind={(next) => {
          setKind(next);
          setPanId("");
          setPieces(undefined);
          setPieceG(undefined);
        }}
      />
      <Choice
        label="Variant"
        options={(Object.keys(variantWords) as Variant[]).map((value) => ({ value, label: variantWords[value] }))}
        value={variant}
        onChange={setVariant}
      />
      <Heading>In what</Heading>
      <Pans
        usual={wish.vessel && panId === "" ? wish.vessel : defaultsOf(kind).vessel}
        usualName={start && start.kind === kind ? "Its own pan" : "The usual pan"}
        pans={suits.slice(0, MOST_PANS)}
        chosen={panId}
        onPan={setPanId}
      />
      <View style={styles.row}>
        <NumberField
          label="Pieces"
          unit=""
          least={1}
          most={500}
          whole
          optional
          value={pieces}
          onChange={setPieces}
          style={styles.field}
        />
        <NumberField
          label="A piece, baked"
          unit="g"
          least={5}
          most={5000}
          optional
          value={pieceG}
          onChange={setPieceG}
          style={styles.field}
        />
      </View>
      <View style={styles.start}>
        <Check label="Crown just over the rim" on={toRim} onChange={setToRim} />
      </View>
      <Heading>What is on hand</Heading>
      <Small tone="faint">
        {usual
          ? "No packet is in the store yet, so a usual shelf stands here: tick what you have."
          : "The packets of the store, and what you tick beside them. The shopping list goes by the same shelf."}
      </Small>
      {kitchen ? <OnHand shelf={kitchen.shelf} ticked={ticked} tick={tick} /> : null}
      <Heading>What must be used up</Heading>
      {kitchen ? <UseUp shelf={kitchen.shelf} list={useUp} onChange={setUseUp} /> : null}
      {more ? (
        <>
          <Heading>What lifts it</Heading>
          <Choice
            label="Lift"
            options={[
              { value: "" as const, label: "Whatever suits" },
              ...lifts.map((value) => ({ value, label: liftWords[value] })),
            ]}
            value={lift}
            onChange={setLift}
          />
          <Heading>How it is to fall from the spoon</Heading>
          <Choice
            label="Body"
            options={[{ value: "" as const, label: "As its kind" }, ...bodies.map(({ value, label }) => ({ value, label }))]}
            value={body}
            onChange={setBody}
          />
          <Heading>What binds it</Heading>
          <Choice
            label="Binder"
            options={[
              { value: "", label: "Whatever suits" },
              ...["xanthan", "psyllium-husk", "ground-flax", "guar"]
                .filter((id) => ticked.includes(id))
                .map((value) => ({ value, label: kitchen.shelf.get(value)?.name ?? value })),
              { value: "none", label: "No gum" },
            ]}
            value={binder}
            onChange={setBinder}
          />
          <Heading>Without</Heading>
          <View style={styles.row} role="group" aria-label="Allergens to avoid">
            {allergens
              .filter((one) => one !== "wheat" && one !== "barley")
              .map((one) => (
                <Check
                  key={one}
                  label={one.replace(/^./, (c) => c.toUpperCase())}
                  on={avoid.includes(one)}
                  onChange={(on) => setAvoid(on ? [...avoid, one] : avoid.filter((other) => other !== one))}
                />
              ))}
          </View>
        </>
      ) : (
        <Button kind="quiet" onPress={() => setMore(true)} style={styles.start}>
          What lifts and binds it, body, allergens
        </Button>
      )}
      <Button kind="main" onPress={() => asked.mutate(wish)} disabled={asked.isPending} style={styles.start} testID="design">
        {answer ? "Design again" : "Design it"}
      </Button>
      <Button kind="plain" onPress={() => related.mutate(wish)} disabled={related.isPending} style={styles.start}>
        Five from one dry mix
      </Button>
    </>
  );
  const results = (
    <>
      <Busy on={asked.isPending || related.isPending} what="Weighing out, baking and mending" />
      {asked.error ? <Body tone="stop">{asked.error.message}</Body> : null}
      {answer && stale && !asked.isPending ? (
        <Small tone="caution" strong>
          What stands below is for what was chosen before.
        </Small>
      ) : null}
      {answer?.missing && answer.designs.length === 0 ? (
        <Body tone="caution" strong>
          {`Nothing sound comes of this shelf. ${answer.missing.why}`}
        </Body>
      ) : null}
      {answer && answer.missing?.ingredientIds.length ? (
        <View style={styles.row}>
          {answer.missing.ingredientIds.map((id) => (
            <Button
              key={id}
              onPress={() => {
                tick(id, true);
                asked.mutate({ ...answer.wanted, have: [...(answer.wanted.have ?? []), id] });
              }}
            >
              {`Put ${kitchen?.shelf.get(id)?.name ?? id} on the shelf`}
            </Button>
          ))}
        </View>
      ) : null}
      {kitchen && answer ? (
        <View style={styles.designs}>
          {answer.designs.map((design) => (
            <Designed
              key={`${design.id} ${JSON.stringify(design.lines)}`}
              design={design}
              wish={answer.wanted}
              shelf={kitchen.shelf}
              busy={take.isPending && take.variables.design.id === design.id}
              fault={take.error && take.variables?.design.id === design.id ? take.error.message : null}
              onTake={(knobs) => take.mutate({ design, wanted: answer.wanted, knobs })}
            />
          ))}
        </View>
      ) : null}
      {related.error ? <Body tone="stop">{related.error.message}</Body> : null}
      {kitchen && related.data ? (
        <Related
          family={related.data}
          wish={related.data.wanted}
          shelf={kitchen.shelf}
          busy={take.isPending ? take.variables.design.title : null}
          onTake={(design) => take.mutate({ design, wanted: related.data.wanted, knobs: {} })}
        />
      ) : null}
    </>
  );
  if (!wide)
    return (
      <ScrollView style={styles.screen} contentContainerStyle={styles.content}>
        {wishes}
        {results}
      </ScrollView>
    );
  return (
    <Beside
      list={<ScrollView contentContainerStyle={styles.content}>{wishes}</ScrollView>}
      detail={<ScrollView contentContainerStyle={styles.content}>{results}</ScrollView>}
    />
  );
}

/** A formula that the design starts from: once it is read it is handed on, and what of it cannot stay is told. */
function useStart(
  from: string | undefined,
  shelf: Shelf,
  ticked: readonly string[],
  begin: (wish: Wish) => void,
): { title: string; names: string[] } | null {
  const [gone, setGone] = useState<{ title: string; names: string[] } | null>(null);
  const { data } = useQuery({
    queryKey: keys.formula.of(from ?? ""),
    queryFn: ({ signal }) => wire.readFormula(from ?? "", signal),
    enabled: from !== undefined,
  });
  const done = useRef<string | null>(null);
  useEffect(() => {
    if (!data || done.current === data.id) return;
    done.current = data.id;
    void ask("wish", data.formula, ticked, ownOf(shelf)).then(({ wish, gone: names }) => {
      setGone({ title: data.formula.title, names });
      begin(wish);
    });
  }, [data, shelf, ticked, begin]);
  return from === undefined ? null : gone;
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  content: { padding: space.m, gap: space.m, paddingBottom: 80 },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
  start: { alignSelf: "flex-start" },
  designs: { flexDirection: "row", flexWrap: "wrap", gap: space.l },
});
