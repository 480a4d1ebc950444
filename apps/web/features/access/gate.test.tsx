import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { Text } from "react-native";
import { ThemeProvider } from "../../theme/theme";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { Gate } from "./gate";

jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: jest.fn() }), usePathname: () => "/" }));

const behind = (kept?: unknown) => {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  if (kept !== undefined) client.setQueryData(keys.session.all, kept, { updatedAt: 1 });
  return render(
    <QueryClientProvider client={client}>
      <ThemeProvider>
        <Gate>
          <Text>The kitchen</Text>
        </Gate>
      </ThemeProvider>
    </QueryClientProvider>,
  );
};
const stranger = { needed: true, here: null };

test("who has just come in is in, though the page kept that it was before the door", async () => {
  jest.spyOn(wire, "session").mockResolvedValue({ needed: true, here: { id: "d", device: "Desk", role: "baker" } });
  behind(stranger);
  expect(screen.queryByText("The kitchen")).toBeNull();
  expect(await screen.findByText("The kitchen")).toBeTruthy();
  expect(screen.queryByLabelText("Passcode")).toBeNull();
});

test("who was let go since the page was last open comes before the door; with nobody to ask, what was kept holds", async () => {
  const asked = jest.spyOn(wire, "session").mockResolvedValue(stranger);
  const inside = { needed: true, here: { id: "d", device: "Desk", role: "baker" } };
  const { unmount } = behind(inside);
  expect(await screen.findByLabelText("Passcode")).toBeTruthy();
  unmount();
  asked.mockRejectedValue(new Error("nobody answers"));
  behind(inside);
  expect(await screen.findByText("The kitchen")).toBeTruthy();
  expect(screen.queryByLabelText("Passcode")).toBeNull();
});
