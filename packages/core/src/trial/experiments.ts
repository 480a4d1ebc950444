/** Something to try that tells one cause from another, with its steps and what its results mean. */
export interface Experiment {
  id: string;
  title: string;
  needs: string;
  steps: string[];
  reading: string[];
}

export const experiments: readonly Experiment[] = [
  {
    id: "powder-in-water",
    title: "Is the powder still alive?",
    needs: "A teaspoon of the powder, 100 mL of water at 80 °C, a tall glass.",
    steps: ["Heat the water until it steams, not until it boils.", "Put a level teaspoon (5 g) of powder in at once and look at the foam for a minute.", "Do the same with a fresh packet where there is one."],
    reading: ["Foam over the water as high as two fingers: it is fresh.", "Half of that: about half of its lift is left; half as much again makes up for it.", "A few bubbles: throw it away."],
  },
  {
    id: "oven-thermometer",
    title: "Does the oven tell the truth?",
    needs: "A thermometer for the oven, in the middle of the rack that you bake on.",
    steps: ["Set 180 °C and wait until the lamp has gone out twice.", "Read the thermometer through the glass every four minutes for twenty minutes, with the door shut.", "Take the mean of the readings; the largest less the smallest is its swing."],
    reading: ["Within 5 °C of the dial: it is true.", "Further off: write the difference under Store, Ovens; every bake then reckons with it."],
  },
  {
    id: "bread-map",
    title: "Where is the oven hot?",
    needs: "Six slices of any white bread, or twelve spoons of sugar in paper cups, on one tray.",
    steps: ["Lay them out over the whole rack at 180 °C.", "Take them out after eight minutes and leave them where they lay.", "Photograph the tray with the door's side marked."],
    reading: ["All alike: it is even.", "One corner darker: turn what you bake there at two thirds of its time."],
  },
  {
    id: "cup-on-scale",
    title: "What does your cup weigh?",
    needs: "The cup, the flour, a scale to 1 g.",
    steps: ["Fill the cup as you always do, and level it as you always do.", "Weigh what is in it; do it five times.", "Write the five weights down with the next trial, under “Cups and spoons”."],
    reading: ["Near the table (120 to 130 g for most flours in a US cup): your cup is the table's.", "A sixth more: you dip. Weigh, or loosen the flour first.", "A tenth less: you sift."],
  },
  {
    id: "half-and-half",
    title: "Which of two causes is it?",
    needs: "One batter, divided in two before the last thing goes in.",
    steps: ["Mix everything up to where the two causes part.", "Change the one thing in one half only, and mark that half.", "Bake both side by side on one rack."],
    reading: ["Only the changed half is mended: that was it.", "Both are as before: it was the other one.", "Both are mended: something else was different today; look at the weights."],
  },
]; // prettier-ignore
