/** What a baker may wish of the next bake. */
export const goals = ["taller", "moister", "less-crumbly", "less-sodium", "sooner"] as const;
export type Goal = (typeof goals)[number];
export const goalName: Record<Goal, string> = {
  taller: "Taller",
  moister: "Moister",
  "less-crumbly": "Crumbles less",
  "less-sodium": "Less sodium",
  sooner: "Done sooner",
};
