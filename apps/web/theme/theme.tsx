import { createContext, type ReactNode, useContext, useMemo, useState } from "react";
import { useColorScheme, useWindowDimensions } from "react-native";
import { readDevice, writeDevice } from "../ui/device";
import { type Colours, dark, light } from "./colours";
import { wideFrom } from "./scale";

export const schemes = ["system", "light", "dark"] as const;
export type Scheme = (typeof schemes)[number];

interface Theme {
  colours: Colours;
  isDark: boolean;
  scheme: Scheme;
  setScheme: (scheme: Scheme) => void;
}

const ThemeContext = createContext<Theme | null>(null);

export function ThemeProvider({ children }: { children: ReactNode }) {
  const system = useColorScheme();
  const [scheme, setScheme] = useState<Scheme>(() => {
    const kept = readDevice("scheme");
    return schemes.find((s) => s === kept) ?? "system";
  });
  const isDark = scheme === "system" ? system === "dark" : scheme === "dark";
  const theme = useMemo(
    () => ({
      colours: isDark ? dark : light,
      isDark,
      scheme,
      setScheme: (next: Scheme) => {
        writeDevice("scheme", next);
        setScheme(next);
      },
    }),
    [isDark, scheme],
  );
  return <ThemeContext.Provider value={theme}>{children}</ThemeContext.Provider>;
}

export function useTheme(): Theme {
  const theme = useContext(ThemeContext);
  if (!theme) throw new Error("useTheme stands outside of ThemeProvider");
  return theme;
}

export const useColours = (): Colours => useTheme().colours;

export const useWide = (): boolean => useWindowDimensions().width >= wideFrom;
