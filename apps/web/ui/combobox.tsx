import { useCombobox } from "downshift";
import { StyleSheet, View } from "react-native";
import { fonts, space, touch, type } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Block } from "./dom";
import { Body, Small } from "./words";

export interface Named {
  id: string;
  name: string;
  aliases: readonly string[];
}

interface SearchProps<T extends Named> {
  label: string;
  query: string;
  onQuery: (query: string) => void;
  found: readonly T[];
  onPick: (item: T) => void;
  nothing?: string;
  placeholder?: string;
  /** Enter with nothing marked. */
  onSubmit?: () => void;
}

/** A search box with what it finds under it: arrows walk the list, Enter takes, Escape empties it. */
export function NameSearch<T extends Named>({
  label,
  query,
  onQuery,
  found,
  onPick,
  nothing = "Nothing by that name.",
  placeholder = "type a name",
  onSubmit,
}: SearchProps<T>) {
  const colours = useColours();
  const items = [...found];
  const { getLabelProps, getInputProps, getMenuProps, getItemProps, highlightedIndex } = useCombobox<T>({
    items,
    inputValue: query,
    isOpen: query.trim() !== "" && items.length > 0,
    selectedItem: null,
    itemToString: (item) => item?.name ?? "",
    onSelectedItemChange: ({ selectedItem }) => {
      if (selectedItem) onPick(selectedItem);
    },
    stateReducer: (state, { type: change, changes }) =>
      // Leaving the field keeps what was typed; only Enter or a press takes something.
      change === useCombobox.stateChangeTypes.InputBlur
        ? { ...changes, selectedItem: state.selectedItem, inputValue: state.inputValue }
        : changes,
  });
  const open = query.trim() !== "";
  return (
    <View style={styles.search}>
      <label {...getLabelProps()} style={{ color: colours.faint, fontFamily: fonts.body, fontSize: type.small.fontSize }}>
        {label}
      </label>
      <input
        {...getInputProps({
          // Downshift would hand the text on a beat later, and a controlled field must not lose the caret.
          onChange: (event) => onQuery(event.currentTarget.value),
          onKeyDown: (event) => {
            if (event.key === "Escape") onQuery("");
            if (event.key === "Enter" && highlightedIndex < 0) onSubmit?.();
          },
        })}
        placeholder={placeholder}
        autoComplete="off"
        style={{
          ...styles.input,
          color: colours.ink,
          backgroundColor: colours.sunk,
          borderBottom: `1.5px solid ${colours.strongRule}`,
          outlineColor: colours.focus,
        }}
      />
      {open && items.length === 0 ? <Small tone="faint">{nothing}</Small> : null}
      <Block {...getMenuProps({ "aria-label": "Found" })} style={styles.list}>
        {open
          ? items.map((item, index) => (
              <Block
                key={item.id}
                {...getItemProps({ item, index })}
                style={[
                  styles.item,
                  {
                    borderBottomColor: colours.rule,
                    backgroundColor: index === highlightedIndex ? colours.sunk : "transparent",
                    borderLeftColor: index === highlightedIndex ? colours.focus : "transparent",
                  },
                ]}
              >
                <Body lines={1}>{item.name}</Body>
                {item.aliases.length > 0 ? (
                  <Small tone="faint" lines={1}>
                    {item.aliases.slice(0, 3).join(", ")}
                  </Small>
                ) : null}
              </Block>
            ))
          : null}
      </Block>
    </View>
  );
}

const styles = {
  ...StyleSheet.create({
    search: { gap: space.xs },
    list: { display: "flex", flexDirection: "column" },
    item: {
      display: "flex",
      flexDirection: "column",
      justifyContent: "center",
      minHeight: touch.least,
      paddingHorizontal: space.s,
      borderBottomWidth: 1,
      borderLeftWidth: 4,
      borderStyle: "solid",
      borderTopWidth: 0,
      borderRightWidth: 0,
      cursor: "pointer",
    },
  }),
  input: {
    fontFamily: fonts.body,
    fontSize: type.body.fontSize,
    minHeight: touch.least,
    padding: `0 ${space.s}px`,
    border: "none",
    borderRadius: 0,
    width: "100%",
    boxSizing: "border-box",
  } as const,
};
