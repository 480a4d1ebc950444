/** The log and its seasons, with their papers. */
export { LogPlace } from "../features/log/place";
export { JudgeScreen } from "../features/log/judge-screen";
export { CompareScreen } from "../features/log/compare-screen";
export { LearntScreen } from "../features/log/learnt-screen";
export { PracticeScreen } from "../features/log/practice-screen";
export { TastingScreen } from "../features/log/tasting-screen";
export { ComparePage, TrialPage } from "../features/log/print-page";
export { SeasonsScreen } from "../features/season/list-screen";
export { BeginSeason } from "../features/season/begin-screen";
export { SeasonScreen } from "../features/season/screen";
export { SeasonPage } from "../features/season/print-page";
