import { type Href, useRouter } from "expo-router";
import type { GestureResponderEvent } from "react-native";
import { Press, type PressProps } from "./press";

interface LinkProps extends Omit<PressProps, "onPress" | "role"> {
  to: string;
}

/** A place to go to: a true link, which opens in another tab as links do. */
export function Link({ to, ...rest }: LinkProps) {
  const router = useRouter();
  const go = (event: GestureResponderEvent): void => {
    const { metaKey, ctrlKey, shiftKey } = event.nativeEvent as unknown as Partial<MouseEvent>;
    // The browser's own ways of opening a link stay the browser's.
    if (metaKey || ctrlKey || shiftKey) return;
    event.preventDefault();
    router.navigate(to as Href);
  };
  const href = { href: to } as object;
  return <Press role="link" {...href} {...rest} onPress={go} />;
}
