import { type ComponentType, lazy, type LazyExoticComponent, useEffect } from "react";
import { whenIdle } from "../device/idle";
import { warmKitchen } from "../device/workers";
import { Loading } from "../ui/state";

/** What the first screen waits for; null when it has been drawn, or will not be. */
let first: Promise<void> | null = Promise.resolve();

/** Stands in for a screen that is not here. Of the first one that is the frame that the page came with: nothing is drawn in between, which would hold the screen up. */
export function Meanwhile() {
  // Thrown, not used: by `use` this would be drawn when it is here; as it is, the screen is.
  if (first) throw first;
  return <Loading what="Fetching this page" />;
}

/** Stands beside the screens, and is drawn with the first of them. */
export function Arrived() {
  useEffect(() => {
    first = null;
  }, []);
  return null;
}

/** A screen behind its door: it is fetched when it is first shown, or ahead when there is time. */
const behind = <N extends string, M extends Record<N, ComponentType<any>>>( // eslint-disable-line @typescript-eslint/no-explicit-any -- a screen of any props
  door: () => Promise<M>,
  name: N,
): LazyExoticComponent<M[N]> =>
  lazy(async () => {
    const coming = door();
    if (first)
      first = coming.then(
        () => {},
        () => {
          first = null;
        },
      );
    return { default: (await coming)[name] };
  });

/** A room that asks the kitchen: the two are fetched side by side. */
const withKitchen =
  <M,>(door: () => Promise<M>) =>
  (): Promise<M> => {
    warmKitchen();
    return door();
  };

const formulas = () => import("./formulas");
const bench = withKitchen(() => import("./bench"));
const reader = withKitchen(() => import("./reader"));
const design = withKitchen(() => import("./design"));
const counter = withKitchen(() => import("./counter"));
const log = withKitchen(() => import("./log"));
const store = withKitchen(() => import("./store"));
const print = withKitchen(() => import("./print"));
const look = withKitchen(() => import("./look"));

export const FormulasScreen = behind(formulas, "FormulasScreen");
export const BenchHome = behind(bench, "BenchHome");
export const BenchScreen = behind(bench, "BenchScreen");
export const RoomView = behind(bench, "RoomView");
export const ReaderScreen = behind(reader, "ReaderScreen");
export const PageScreen = behind(reader, "PageScreen");
export const Welcome = behind(reader, "Welcome");
export const DesignScreen = behind(design, "DesignScreen");
export const CounterScreen = behind(counter, "CounterScreen");
export const CountersScreen = behind(counter, "CountersScreen");
export const DayScreen = behind(bench, "DayScreen");
export const DaysScreen = behind(bench, "DaysScreen");
export const DayPage = behind(bench, "DayPage");
export const LogPlace = behind(log, "LogPlace");
export const JudgeScreen = behind(log, "JudgeScreen");
export const CompareScreen = behind(log, "CompareScreen");
export const LearntScreen = behind(log, "LearntScreen");
export const PracticeScreen = behind(log, "PracticeScreen");
export const TastingScreen = behind(log, "TastingScreen");
export const ComparePage = behind(log, "ComparePage");
export const TrialPage = behind(log, "TrialPage");
export const SeasonsScreen = behind(log, "SeasonsScreen");
export const BeginSeason = behind(log, "BeginSeason");
export const SeasonScreen = behind(log, "SeasonScreen");
export const SeasonPage = behind(log, "SeasonPage");
export const StoreScreen = behind(store, "StoreScreen");
export const FormulaPage = behind(print, "FormulaPage");
export const ManyPage = behind(print, "ManyPage");
export const LabelSheet = behind(print, "LabelSheet");
export const LookScreen = behind(look, "LookScreen");

/** The page that was asked for goes first. */
const AHEAD_MS = 2500;
/** Brings what is likely to be opened next, one door at a time while there is nothing else to do; what cannot be had now is fetched when it is opened. */
export function fetchAhead(): () => void {
  const left = [bench, reader, log, counter, store, formulas];
  let stop = () => {};
  const next = (): void => {
    const door = left.shift();
    if (door) stop = whenIdle(() => void door().then(next, () => {}), 10_000);
  };
  const timer = setTimeout(next, AHEAD_MS);
  return () => {
    clearTimeout(timer);
    left.length = 0;
    stop();
  };
}
