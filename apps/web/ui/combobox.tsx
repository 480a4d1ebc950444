import { useCombobox } from "downshift";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Block } from "./dom";
import { inputStyle, labelStyle, type Named, type SearchProps, takeFocus } from "./search-field";
import { Body, Small } from "./words";

/** A search box with what it finds under it: arrows walk the list, Enter takes, Escape empties it. */
export function Combobox<T extends Named>({
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
  // The plain field that stood here until this was fetched may have been typed into.
  const [focused] = useState(() => takeFocus(label));
  return (
    <View style={styles.search}>
      <label {...getLabelProps()} style={labelStyle(colours)}>
        {label}
      </label>
      <input
        {...getInputProps({
          // Downshift would hand the text on a beat later, and a controlled field must not lose the caret.
          onChange: (event) => onQuery(event.currentTarget.value),
          onKeyDown: (event) => {
            // What was typed goes first; the next Escape is the page's.
            if (event.key === "Escape" && query !== "") {
              event.preventDefault();
              onQuery("");
            }
            if (event.key === "Enter" && highlightedIndex < 0) onSubmit?.();
          },
        })}
        placeholder={placeholder}
        autoComplete="off"
        autoFocus={focused}
        style={inputStyle(colours)}
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

const styles = StyleSheet.create({
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
});
