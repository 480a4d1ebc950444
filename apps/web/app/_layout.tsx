import { AtkinsonHyperlegibleNext_400Regular } from "@expo-google-fonts/atkinson-hyperlegible-next/400Regular";
import { AtkinsonHyperlegibleNext_700Bold } from "@expo-google-fonts/atkinson-hyperlegible-next/700Bold";
import { BricolageGrotesque_700Bold } from "@expo-google-fonts/bricolage-grotesque/700Bold";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useFonts } from "expo-font";
import { Slot } from "expo-router";
import { SafeAreaProvider } from "react-native-safe-area-context";
import { Gate } from "../features/access/gate";
import { useEffect } from "react";
import { keepAnswersOf } from "../features/wire/kept";
import { Shell } from "../features/shell/shell";
import { ThemeProvider } from "../theme/theme";
import { Guard } from "../ui/guard";

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: false, staleTime: 5_000, networkMode: "always" },
    // A write with the network gone is told at once, not silently held back.
    mutations: { networkMode: "always" },
  },
});

export default function Layout() {
  useEffect(() => keepAnswersOf(queries), []);
  useFonts({ AtkinsonHyperlegibleNext_400Regular, AtkinsonHyperlegibleNext_700Bold, BricolageGrotesque_700Bold });
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={queries}>
        <ThemeProvider>
          <Guard what="Uprise">
            <Gate>
              <Shell>
                <Slot />
              </Shell>
            </Gate>
          </Guard>
        </ThemeProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
