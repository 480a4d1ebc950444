import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { BlendLabel } from "@uprise/contract";
import type { PrintedTable, PacketPrint, Shelf } from "@uprise/core";
import { useMemo, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import { ownOf } from "@uprise/core/page";
import { type Nutrient, nutrients } from "@uprise/core/page-bench";
import { useAsked } from "../../device/use-asked";
import { ask } from "../../device/workers";
import { space } from "../../theme/scale";
import { NameSearch } from "../../ui/name-search";
import { FormNumber, FormText } from "../../ui/form";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useSearch } from "../wire/use-search";
import { byContract } from "./by-contract";
import { PrintPhoto } from "./print-photo";

/** An id out of a name that nothing on the shelf has. */
function idFrom(name: string, shelf: Shelf): string {
  const base =
    name
      .toLowerCase()
      .normalize("NFD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "blend";
  let id = base;
  for (let n = 2; shelf.get(id); n++) id = `${base}-${n}`;
  return id;
}

const nutrientName: Record<Nutrient, string> = { protein: "Protein", fat: "Fat", sugars: "Sugars", fibre: "Fibre", salt: "Salt" };
const knownIn = (nutrition: PrintedTable | undefined): PrintedTable =>
  Object.fromEntries(Object.entries(nutrition ?? {}).filter(([, value]) => value !== undefined && !Number.isNaN(value)));
const shareText = (share: { low: number; mid: number; high: number } | undefined): string => {
  if (!share) return "";
  const [low, mid, high] = [share.low, share.mid, share.high].map((one) => Math.round(100 * one));
  return low === high ? `, ${mid} %` : `, about ${mid} % (${low}–${high})`;
};

/** A bought blend described by its packet: ingredients in the order of the label, and what it holds of gum and powder. */
export function BlendForm({ shelf, onDone }: { shelf: Shelf; onDone: () => void }) {
  const queries = useQueryClient();
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 5);
  const { control, handleSubmit, setValue, formState } = useForm<BlendLabel>({
    resolver: byContract("blendLabelSchema"),
    defaultValues: { name: "", order: [] },
  });
  /** Allergens that the print names, whether or not what holds them is known here. */
  const [named, setNamed] = useState<PacketPrint["allergens"]>([]);
  const order = useWatch({ control, name: "order" });
  const nutrition = useWatch({ control, name: "nutrition" });
  const percents = useWatch({ control, name: "percents" });
  const gumPercent = useWatch({ control, name: "gumPercent" });
  const powderPercent = useWatch({ control, name: "powderPercent" });
  const own = useMemo(() => ownOf(shelf), [shelf]);
  // What is being typed may not pass yet; then nothing is reckoned.
  const label = useMemo(
    () => ({ id: "x", name: "x", order: [...order], nutrition: knownIn(nutrition), percents, gumPercent: Number.isNaN(gumPercent) ? undefined : gumPercent, powderPercent: Number.isNaN(powderPercent) ? undefined : powderPercent }),
    [order, nutrition, percents, gumPercent, powderPercent],
  ); // prettier-ignore
  const likely = useAsked("blend-shares", order.length > 0 ? [label, own] : null);
  const setOrder = (next: string[]): void => setValue("order", next, { shouldValidate: formState.isSubmitted });
  const create = useMutation({
    mutationFn: async (label: BlendLabel) => {
      const blend = await ask("blend-of-label", { id: idFrom(label.name, shelf), ...label }, ownOf(shelf));
      return wire.createIngredient({
        ...blend,
        allergens: [...new Set([...blend.allergens, ...named])],
        aliases: [label.name.toLowerCase()],
      });
    },
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keys.ingredients.all });
      onDone();
    },
  });
  return (
    <View style={styles.form} role="group" aria-label="A bought blend">
      <Heading>A bought blend</Heading>
      <Small tone="faint">
        Its ingredients in the order of the packet: the law has them by falling weight, and from that their likely shares are
        reckoned.
      </Small>
      <PrintPhoto
        shelf={shelf}
        onTake={({ ingredients, allergens, nutrition, percents }) => {
          setOrder([...new Set(ingredients.flatMap(({ id }) => id ?? []))]);
          setValue("nutrition", nutrition);
          setValue("percents", percents);
          setNamed(allergens);
        }}
      />
      <FormText control={control} name="name" label="Name" />
      {order.map((id, index) => (
        <View key={id} style={styles.part}>
          <Body style={styles.grow}>
            {index + 1}. {shelf.get(id)?.name ?? id}
            {shareText(likely.data?.shares.find((share) => share.id === id))}
          </Body>
          <Button
            kind="quiet"
            label={`Remove ${shelf.get(id)?.name ?? id}`}
            onPress={() => setOrder(order.filter((other) => other !== id))}
          >
            Remove
          </Button>
        </View>
      ))}
      <NameSearch
        label={order.length === 0 ? "First on the label" : "Next on the label"}
        query={query}
        onQuery={setQuery}
        found={found.filter((item) => !order.includes(item.id))}
        onPick={(item) => {
          setOrder([...order, item.id]);
          setQuery("");
        }}
      />
      {formState.errors.order?.message ? <Small tone="stop">{formState.errors.order.message}</Small> : null}
      <View style={styles.line}>
        <FormNumber control={control} name="gumPercent" label="Gum, %" unit="%" least={0} most={10} style={styles.grow} />
        <FormNumber
          control={control}
          name="powderPercent"
          label="Baking powder, %"
          unit="%"
          least={0}
          most={10}
          style={styles.grow}
        />
      </View>
      <Body strong>Its table, of 100 g</Body>
      <Small tone="faint">Where it is printed, the shares are reckoned from it as well.</Small>
      <View style={styles.wrap}>
        {nutrients.map((nutrient) => (
          <FormNumber
            key={nutrient}
            control={control}
            name={`nutrition.${nutrient}`}
            label={nutrientName[nutrient]}
            unit="g"
            least={0}
            most={100}
            style={styles.cell}
          />
        ))}
      </View>
      {likely.data?.misfit ? (
        <Small tone="caution">
          No shares in this order give that table: a number, an ingredient or the order is not as printed. The shares are those of
          the order alone.
        </Small>
      ) : null}
      {create.error ? <Body tone="stop">{create.error.message}</Body> : null}
      <View style={styles.line}>
        <Button kind="main" disabled={create.isPending} onPress={() => void handleSubmit((label) => create.mutate(label))()}>
          Put it in the store
        </Button>
        <Button kind="quiet" onPress={onDone}>
          Leave it
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.m, gap: space.m },
  line: { flexDirection: "row", alignItems: "flex-end", gap: space.m },
  part: { flexDirection: "row", alignItems: "center", gap: space.m },
  grow: { flex: 1, minWidth: 0 },
  wrap: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  cell: { flexBasis: 104, flexGrow: 1, minWidth: 0 },
});
