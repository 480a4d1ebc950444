import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { Image, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Button } from "../../ui/press";
import { Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";

const MOST = 12;

/** Photographs of a bake; they are made smaller and stripped of place and device before they are kept. */
export function Photos({ photos, onChange }: { photos: readonly string[]; onChange: (photos: string[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const add = useMutation({
    mutationFn: async (files: readonly File[]) => {
      const kept: string[] = [];
      for (const file of files) kept.push((await wire.keepPhoto(file)).hash);
      return kept;
    },
    onSuccess: (kept) => onChange([...new Set([...photos, ...kept])].slice(0, MOST)),
  });
  return (
    <View style={styles.photos}>
      <Heading>Photographs</Heading>
      <View style={styles.row}>
        {photos.map((hash, k) => (
          <View key={hash}>
            <Image source={{ uri: `/api/photos/${hash}` }} style={styles.photo} alt={`Photograph ${k + 1}`} accessibilityLabel={`Photograph ${k + 1}`} />
            <Button kind="quiet" label={`Take photograph ${k + 1} off`} onPress={() => onChange(photos.filter((one) => one !== hash))}>
              Off
            </Button>
          </View>
        ))}
      </View>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        hidden
        aria-label="Photographs"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length > 0) add.mutate(files);
        }}
      />
      <Button disabled={add.isPending || photos.length >= MOST} onPress={() => input.current?.click()}>
        {add.isPending ? "Keeping it" : "Add a photograph"}
      </Button>
      {add.error ? <Small tone="stop">{add.error.message}</Small> : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  photos: { gap: space.s },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  photo: { width: 120, height: 90 },
});
