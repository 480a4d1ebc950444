import { lazy, Suspense } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { inputStyle, labelStyle, leaveFocus, type Named, type SearchProps } from "./search-field";

const Combobox = lazy(async () => ({ default: (await import("./combobox")).Combobox }));

/** A search box with what it finds under it. Until the one that walks its list is fetched, a plain field takes what is typed. */
export function NameSearch<T extends Named>(props: SearchProps<T>) {
  return (
    <Suspense fallback={<Plain {...props} />}>
      <Combobox {...(props as unknown as SearchProps<Named>)} />
    </Suspense>
  );
}

function Plain<T extends Named>({ label, query, onQuery, placeholder = "type a name" }: SearchProps<T>) {
  const colours = useColours();
  return (
    <View style={styles.search}>
      <label style={labelStyle(colours)}>
        {label}
        <input
          value={query}
          placeholder={placeholder}
          autoComplete="off"
          onChange={(event) => onQuery(event.currentTarget.value)}
          onFocus={() => leaveFocus(label)}
          onBlur={() => leaveFocus(null)}
          style={inputStyle(colours)}
        />
      </label>
    </View>
  );
}

const styles = StyleSheet.create({ search: { gap: space.xs } });
