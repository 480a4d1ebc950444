import type { Ingredient, Vessel } from "@uprise/core";
import { asSodaText } from "@uprise/core/page";
import { fillVessel } from "@uprise/core/page-bench";
import { type Href, useRouter } from "expo-router";
import { useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { AccessShelf } from "../access/shelf";
import { CopiesShelf } from "../exchange/copies-shelf";
import { BlendForm } from "./blend-form";
import { Devices } from "./devices";
import { Ovens } from "./ovens";
import { Packets } from "./packets";
import { PanForm } from "./pan-form";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useIngredients, useKitchen, useVessels } from "../wire/queries";
import { SettingsShelf } from "./settings";
import { TakenOffNotice } from "./taken-off";
import { useTakeOff } from "./use-shelf-writes";
import { useSearch } from "../wire/use-search";
import { shelves, type ShelfName, shelfTitle } from "./shelf-names";
import { useGrowing } from "../../ui/use-growing";

/** What the kitchen has: ingredients with what is known of them, pans and ovens, and how the application looks. */
export function StoreScreen({ shelf }: { shelf: ShelfName }) {
  const router = useRouter();
  const wide = useWide();
  useTitle(`${shelfTitle[shelf]}, store`);
  return (
    <View style={[styles.screen, wide ? null : styles.narrow]}>
      <View style={styles.head}>
        <Title>Store</Title>
        <Choice
          label="Shelf"
          options={shelves.map((value) => ({ value, label: shelfTitle[value] }))}
          value={shelf}
          onChange={(next) => router.replace((next === "ingredients" ? "/store" : `/store/${next}`) as Href)}
        />
      </View>
      {shelf === "ingredients" ? (
        <Ingredients />
      ) : shelf === "packets" ? (
        <Packets />
      ) : shelf === "pans" ? (
        <Pans />
      ) : shelf === "ovens" ? (
        <Ovens />
      ) : shelf === "devices" ? (
        <Devices />
      ) : shelf === "copies" ? (
        <CopiesShelf />
      ) : shelf === "access" ? (
        <AccessShelf />
      ) : (
        <SettingsShelf />
      )}
    </View>
  );
}

function Ingredients() {
  const { data, error, refetch, isPending } = useIngredients();
  const { kitchen } = useKitchen(null);
  const { shelf } = kitchen;
  const off = useTakeOff(keys.ingredients.all);
  const own = useMemo(() => new Map((data ?? []).map((stored) => [stored.id, stored])), [data]);
  const [q, setQ] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const wide = useWide();
  const searched = useSearch(q, shelf, 100);
  const sorted = useMemo(() => [...shelf.all()].sort((a, b) => a.name.localeCompare(b.name)), [shelf]);
  const found = q.trim() === "" ? sorted : searched;
  const shown = useGrowing(found.length);
  const removal = (id: string): (() => void) | undefined => {
    const stored = own.get(id);
    if (!stored) return undefined;
    const { ingredient, version } = stored;
    return () =>
      off.takeOff({ name: ingredient.name, back: () => wire.createIngredient(ingredient) }, () =>
        wire.removeIngredient(id, version),
      );
  };
  if (error && !data) return <Failed title="The store is shut." detail={error.message} onRetry={() => void refetch()} />;
  if (isPending) return <Loading what="Fetching the store" />;
  const blend = <BlendForm shelf={shelf} onDone={() => setAdding(false)} />;
  if (adding && !wide) return <ScrollView keyboardShouldPersistTaps="handled">{blend}</ScrollView>;
  const at = wide && !adding ? (shelf.get(open ?? found[0]?.id ?? "") ?? null) : null;
  const list = (
    <>
      <View style={styles.search}>
        <Button onPress={() => setAdding(true)}>Describe a bought blend</Button>
      </View>
      <TakenOffNotice {...off} />
      <Field label={`Search ${shelf.all().length} ingredients`} value={q} onChange={setQ} style={styles.search} />
      <ScrollView contentContainerStyle={styles.list}>
        <View role="list" aria-label="Ingredients">
          {found.slice(0, shown).map((item) => (
            <Entry
              key={item.id}
              ingredient={item}
              open={wide ? at?.id === item.id : open === item.id}
              beside={wide}
              onOpen={() => {
                setAdding(false);
                setOpen(open === item.id && !wide ? null : item.id);
              }}
              onRemove={removal(item.id)}
            />
          ))}
        </View>
        {found.length === 0 ? <Body style={styles.nothing}>Nothing by that name.</Body> : null}
      </ScrollView>
    </>
  );
  if (!wide) return list;
  return (
    <Beside
      list={list}
      detail={
        <ScrollView keyboardShouldPersistTaps="handled" contentContainerStyle={styles.aside}>
          {adding ? blend : at ? <Particulars ingredient={at} onRemove={removal(at.id)} titled /> : null}
        </ScrollView>
      }
    />
  );
}

const sourceName: Record<Ingredient["source"], string> = {
  "composition-table": "food composition tables",
  "maker-label": "makers' labels",
  definition: "its definition",
  estimate: "estimate",
};
const trust: Record<Ingredient["confidence"], string> = { A: "well known", B: "within about a third", C: "within a factor of two" };

interface EntryProps {
  ingredient: Ingredient;
  open: boolean;
  /** What is known of it stands beside the list and not under it. */
  beside: boolean;
  onOpen: () => void;
  /** Where it is the kitchen's own. */
  onRemove: (() => void) | undefined;
}

function Entry({ ingredient, open, beside, onOpen, onRemove }: EntryProps) {
  const colours = useColours();
  return (
    <View
      role="listitem"
      style={[styles.entry, { borderBottomColor: colours.rule, backgroundColor: open && beside ? colours.sunk : "transparent" }]}
    >
      <Press onPress={onOpen} aria-expanded={open} style={styles.entryHead}>
        <Body strong={open} style={styles.grow}>
          {ingredient.name}
        </Body>
        <Small tone="faint">{ingredient.family.replace("-", " ")}</Small>
      </Press>
      {open && !beside ? <Particulars ingredient={ingredient} onRemove={onRemove} /> : null}
    </View>
  );
}

/** What is known of an ingredient. */
function Particulars({ ingredient, onRemove, titled = false }: Pick<EntryProps, "ingredient" | "onRemove"> & { titled?: boolean }) {
  const c = ingredient.per100g;
  const parts = (
    [
      ["water", c.water],
      ["fat", c.fat],
      ["protein", c.protein],
      ["sugars", c.sugars],
      ["starch", c.starch],
      ["fibre", c.fibre],
      ["ash", c.ash],
    ] as const
  ).filter(([, value]) => value >= 0.1);
  return (
    <View style={styles.facts}>
      {titled ? <Heading>{ingredient.name}</Heading> : null}
      <Body>{parts.map(([name, value]) => `${name} ${value} %`).join(", ")}</Body>
      <Body>
        A millilitre weighs {ingredient.gPerMl.low}–{ingredient.gPerMl.high} g
        {ingredient.absorbs
          ? `; a gram drinks ${ingredient.absorbs.fast} g of water at once, ${ingredient.absorbs.slow} g after hours`
          : ""}
        .
      </Body>
      {ingredient.acidity ? (
        <Body>
          100 g meets {asSodaText(ingredient.acidity.low)} to {asSodaText(ingredient.acidity.high)} of soda,{" "}
          {trust[ingredient.acidity.confidence]}
          {ingredient.ph ? `; pH ${ingredient.ph}` : ""}.
        </Body>
      ) : null}
      {ingredient.allergens.length > 0 ? <Body strong>Allergens: {ingredient.allergens.join(", ")}</Body> : null}
      {ingredient.gluten === "free" ? null : (
        <Body strong>
          {ingredient.gluten === "contains"
            ? "Contains gluten."
            : ingredient.gluten === "oats"
              ? "Only where the label says certified gluten-free oats."
              : "Read the label for gluten."}
        </Body>
      )}
      <Small tone="faint">
        From {sourceName[ingredient.source]}; {trust[ingredient.confidence]}. Also called{" "}
        {ingredient.aliases.slice(0, 6).join(", ") || "nothing else"}.
      </Small>
      {onRemove ? (
        <Button kind="quiet" label={`Remove ${ingredient.name}`} onPress={onRemove} style={styles.remove}>
          Remove it from the store
        </Button>
      ) : null}
    </View>
  );
}

function Pans() {
  const colours = useColours();
  const { pans, error, refetch, isPending } = useVessels();
  const [adding, setAdding] = useState(false);
  const off = useTakeOff(keys.vessels.all);
  if (isPending) return <Loading what="Fetching the pans" />;
  if (adding) {
    return (
      <ScrollView keyboardShouldPersistTaps="handled">
        <PanForm onDone={() => setAdding(false)} />
      </ScrollView>
    );
  }
  return (
    <>
      <View style={styles.search}>
        <Button onPress={() => setAdding(true)}>Measure a pan of your own</Button>
      </View>
      <TakenOffNotice {...off} />
      {error ? (
        <View style={styles.search} role="alert">
          <Body tone="caution">{`Your own pans are as they were last seen: ${error.message}`}</Body>
          <Button onPress={() => void refetch()}>Try again</Button>
        </View>
      ) : null}
      <ScrollView contentContainerStyle={styles.list}>
        <View role="list" aria-label="Pans">
          {pans.map(({ name, own, vessel }) => (
            <View key={own?.id ?? name} role="listitem" style={[styles.entry, styles.pan, { borderBottomColor: colours.rule }]}>
              <View style={styles.grow}>
                <Body>{name}</Body>
                <Small tone="faint">{panWords(vessel)}</Small>
              </View>
              {own ? (
                <Button
                  kind="quiet"
                  label={`Remove ${name}`}
                  onPress={() =>
                    off.takeOff({ name, back: () => wire.createVessel({ id: own.id, name, vessel }) }, () =>
                      wire.removeVessel(own.id, own.version),
                    )
                  }
                >
                  Remove
                </Button>
              ) : null}
            </View>
          ))}
        </View>
      </ScrollView>
    </>
  );
}

/** Measures, what it holds, and what it is made of. */
function panWords(vessel: Vessel): string {
  const across =
    vessel.lengthMm && vessel.widthMm
      ? `${vessel.lengthMm} × ${vessel.widthMm}`
      : vessel.diameterMm
        ? `⌀ ${vessel.diameterMm}`
        : null;
  const measures = [across, vessel.heightMm ?? null].filter((v) => v !== null).join(" × ");
  const { capacityMl, pieces } = fillVessel(vessel, 100, 1);
  const holds = Number.isFinite(capacityMl)
    ? pieces > 1
      ? `${pieces} × ${Math.round(capacityMl / pieces)} mL`
      : `${Math.round(capacityMl)} mL`
    : null;
  return [measures === "" ? null : `${measures} mm`, holds, (vessel.material ?? "").replace("-", " ")]
    .filter((part) => part !== null && part !== "")
    .join(", ");
}

const styles = StyleSheet.create({
  screen: { flex: 1, width: "100%", minHeight: 0 },
  narrow: { maxWidth: 760 },
  aside: { padding: space.m, gap: space.m },
  head: { padding: space.m, gap: space.s, paddingBottom: 0 },
  search: { paddingHorizontal: space.m, paddingTop: space.s },
  list: { padding: space.m, paddingTop: space.s },
  nothing: { paddingVertical: space.l },
  entry: { borderBottomWidth: 1 },
  entryHead: { flexDirection: "row", alignItems: "center", gap: space.m },
  grow: { flex: 1 },
  facts: { gap: space.xs, paddingBottom: space.m },
  remove: { alignSelf: "flex-start", paddingHorizontal: 0 },
  pan: { minHeight: 48, flexDirection: "row", alignItems: "center", paddingVertical: space.xs, gap: space.m },
});
