/** Seasons of trials, with their papers. */
export { SeasonsScreen } from "../features/season/list-screen";
export { BeginSeason } from "../features/season/begin-screen";
export { SeasonScreen } from "../features/season/screen";
export { SeasonPage } from "../features/season/print-page";
