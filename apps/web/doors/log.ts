/** The log with its papers. */
export { LogScreen } from "../features/log/list-screen";
export { TrialScreen } from "../features/log/trial-screen";
export { JudgeScreen } from "../features/log/judge-screen";
export { CompareScreen } from "../features/log/compare-screen";
export { LearntScreen } from "../features/log/learnt-screen";
export { PracticeScreen } from "../features/log/practice-screen";
export { TastingScreen } from "../features/log/tasting-screen";
export { ComparePage, TrialPage } from "../features/log/print-page";
