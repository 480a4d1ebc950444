import { useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
import { LogScreen } from "./list-screen";
import { TrialScreen } from "./trial-screen";
import { useTrials } from "../wire/queries";

/** The log: its list, and a trial; on a wide screen both, the newest trial until one is chosen. */
export function LogPlace({ id }: { id?: string }) {
  const wide = useWide();
  const { data } = useTrials();
  const shown = id ?? data?.[0]?.id;
  if (!wide) return id === undefined ? <LogScreen /> : <TrialScreen key={id} id={id} />;
  return (
    <Beside
      list={<LogScreen here={shown ?? null} titled={id === undefined} />}
      detail={shown === undefined ? null : <TrialScreen key={shown} id={shown} beside titled={id !== undefined} />}
    />
  );
}
