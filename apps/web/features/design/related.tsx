import type { Design, BakeFamily, Shelf, Wish } from "@uprise/core";
import { gramsText, kindName } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Table } from "../../ui/facts";
import { Body, Heading, Small } from "../../ui/words";
import { Designed } from "./designed";
import { KeepBlend } from "./keep-blend";

interface RelatedProps {
  family: BakeFamily;
  wish: Wish;
  shelf: Shelf;
  /** The title of the one that is being written down. */
  busy: string | null;
  onTake: (design: Design) => void;
}

/** A family of bakes: their one dry mix, each of them, and all there is to buy for one batch of each. */
export function Related({ family, wish, shelf, busy, onTake }: RelatedProps) {
  const { mix, products, left, shopping, missing } = family;
  const name = (id: string): string => shelf.get(id)?.name ?? id;
  const rows = (lines: BakeFamily["mix"]) =>
    lines.map(({ ingredientId, grams }) => ({ key: ingredientId, cells: [name(ingredientId), gramsText(grams)] }));
  if (products.length === 0)
    return (
      <Body tone="caution" strong>
        {`No family comes of this shelf. ${missing?.why ?? "Another kind or pan may do."}`}
      </Body>
    );
  return (
    <View role="region" aria-label="A family from one mix" style={styles.all}>
      <Heading>A family from one mix</Heading>
      <Table label="The dry mix, 1 kg" head={["The dry mix", "1 kg"]} rows={rows(mix)} />
      <Small tone="faint">
        Flours, binder, salt and powder together, kept dry; sugar and all that is wet or added comes at the bowl.
      </Small>
      <KeepBlend
        label="Keep the mix in the store"
        name={`${kindName[wish.kind].replace(/ and other.*/, "")} mix`}
        lines={mix}
        shelf={shelf}
      />
      <View style={styles.designs}>
        {products.map(({ name: title, design }) => (
          <Designed
            key={title}
            design={design}
            wish={wish}
            shelf={shelf}
            busy={busy === title}
            fault={null}
            fixed
            onTake={() => onTake(design)}
          />
        ))}
      </View>
      {left.map(({ name: title, why }) => (
        <Small key={title} tone="caution">{`Not from this mix: ${title.toLowerCase()}. ${why}`}</Small>
      ))}
      <Table label="To buy, one batch of each" head={["One batch of each", "In all"]} rows={rows(shopping)} />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.m },
  designs: { flexDirection: "row", flexWrap: "wrap", gap: space.l },
});
