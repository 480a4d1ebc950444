import type { ComponentProps, JSX, ReactNode, Ref } from "react";
import type { StyleProp, ViewStyle } from "react-native";
import { unstable_createElement } from "react-native-web";

type Plain<T extends keyof JSX.IntrinsicElements> = Omit<ComponentProps<T>, "style" | "ref"> & {
  style?: StyleProp<ViewStyle>;
  children?: ReactNode;
  ref?: Ref<HTMLElement>;
};

/** An element of the page with the application's styles, for primitives that need the element itself. */
const element =
  <T extends keyof JSX.IntrinsicElements>(tag: T) =>
  (props: Plain<T>) =>
    unstable_createElement(tag, props);

export const Block = element("div");
export const PlainButton = element("button");
export const PlainInput = element("input");
