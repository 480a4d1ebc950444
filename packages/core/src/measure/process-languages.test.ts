import { readRecipe } from "../read";

interface Told {
  method?: string;
  rest?: [number, number];
  soak?: [number, number];
  tin?: [number, number] | null;
  minutes: [number, number];
  celsius: number;
  lining?: string;
  count?: number;
}

/** Recipes of four kitchens, written without a look at what the reader makes of them. */
const texts: [string, string, Told][] = [
  [
    "Kastanienbrot",
    "250 g Kastanienmehl\n15 g Backpulver\n2 Eier\n200 ml Buttermilch\n\nMehl und Backpulver in einer Schüssel vermengen. In einer zweiten Schüssel Eier mit Buttermilch verquirlen, zu den trockenen Zutaten gießen und kurz verrühren. Teig 10 Minuten ruhen lassen. Eine Kastenform mit Backpapier auslegen, Teig einfüllen. 40 bis 45 Minuten bei 175 °C backen. 15 Minuten in der Form auskühlen lassen.",
    { method: "muffin", rest: [10, 10], tin: [15, 15], minutes: [40, 45], celsius: 175, lining: "paper" },
  ],
  [
    "Scones",
    "300 g glutenfreies Mehl\n80 g kalte Butter\n12 g Backpulver\n150 ml Milch\n\nButter mit den Fingerspitzen in das Mehl reiben, bis Streusel entstehen. Milch zugeben und rasch zu einem Teig kneten. 30 Minuten kühl stellen. 2 cm dick ausrollen und 8 Kreise von 6 cm ausstechen. Auf ein Blech mit Backpapier legen. Bei 210 °C 12 bis 14 Minuten backen.",
    { method: "cut-in", minutes: [12, 14], celsius: 210, lining: "paper", count: 8 },
  ],
  [
    "Cake aux pommes",
    "120 g de beurre mou\n120 g de sucre\n2 œufs\n180 g de farine de riz\n10 g de levure chimique\n\nBattez le beurre avec le sucre jusqu'à ce que le mélange soit léger. Ajoutez les œufs un à un, puis la farine et la levure. Versez dans un moule à cake beurré. Enfournez 45 à 50 minutes à 170 °C. Laissez refroidir 10 minutes dans le moule avant de démouler.",
    { method: "creaming", tin: [10, 10], minutes: [45, 50], celsius: 170, lining: "greased" },
  ],
  [
    "Galettes d'avoine",
    "200 g de flocons d'avoine\n300 ml de lait\n1 œuf\n5 g de levure chimique\n\nFaites tremper les flocons d'avoine dans le lait 30 minutes. Ajoutez l'œuf et la levure, mélangez. Laissez reposer la pâte 5 minutes. Formez 6 galettes et cuisez 20 minutes à 200 °C.",
    { soak: [30, 30], rest: [5, 5], minutes: [20, 20], celsius: 200 },
  ],
  [
    "Pan de maíz",
    "250 g de harina de maíz\n12 g de polvo de hornear\n2 huevos\n250 ml de leche\n50 ml de aceite\n\nMezcla los ingredientes secos en un bol. Bate los huevos con la leche y el aceite y viértelo sobre los ingredientes secos. Deja reposar la masa 10 minutos. Engrasa un molde de 20 cm. Hornea de 25 a 30 minutos a 190 °C. Deja enfriar 10 minutos en el molde.",
    { method: "muffin", rest: [10, 10], tin: [10, 10], minutes: [25, 30], celsius: 190, lining: "greased" },
  ],
  [
    "Galletas de mantequilla",
    "200 g de harina de arroz\n100 g de mantequilla fría\n50 g de azúcar\n1 huevo\n\nFrota la mantequilla con la harina con las yemas de los dedos hasta obtener migas. Añade el azúcar y el huevo. Forma 20 bolas de 18 g. Hornea 12 minutos a 180 °C.",
    { method: "cut-in", minutes: [12, 12], celsius: 180, count: 20 },
  ],
  [
    "Plumcake al limone",
    "3 uova\n150 g di zucchero\n200 g di farina di riso\n10 g di lievito per dolci\n80 ml di olio di semi\n\nMontate le uova con lo zucchero finché sono gonfie e chiare, unite l'olio, poi la farina e il lievito. Versate in uno stampo da plumcake foderato con carta forno. Infornate a 170 °C per 40-45 minuti. Lasciate raffreddare nello stampo 20 minuti.",
    { tin: [20, 20], minutes: [40, 45], celsius: 170, lining: "paper" },
  ],
  [
    "Focaccine",
    "250 g di farina di grano saraceno\n8 g di lievito per dolci\n200 ml di acqua\n30 ml di olio\n\nMescolate tutto in una ciotola. Fate riposare l'impasto 20 minuti. Formate 6 palline da 80 g e schiacciatele. Cuocete in forno a 220 °C per 15 minuti.",
    { method: "one-bowl", rest: [20, 20], minutes: [15, 15], celsius: 220, count: 6 },
  ],
  [
    "Bananenmuffins",
    "200 g Buchweizenmehl\n2 TL Backpulver\n3 reife Bananen\n2 Eier\n\nBackofen auf 180 °C vorheizen. Bananen zerdrücken, Eier unterrühren. Mehl mit Backpulver mischen und unterheben. In 12 Förmchen verteilen und 20-25 Min. backen. 5 Minuten im Blech abkühlen lassen.",
    { tin: [5, 5], minutes: [20, 25], celsius: 180 },
  ],
  [
    "Nussschnitten",
    "150 g weiche Butter\n120 g Zucker\n2 Eier\n200 g Reismehl\n1 TL Natron\n\nButter mit Zucker schaumig rühren, Eier einzeln unterrühren. Mehl und Natron unterheben. Auf ein gefettetes Blech streichen (30 x 20 cm). Bei 170 °C Umluft etwa eine halbe Stunde backen. Im Blech ganz auskühlen lassen und in 24 Stücke schneiden.",
    { method: "creaming", tin: null, minutes: [30, 30], celsius: 170, lining: "greased" },
  ],
  [
    "Scones au fromage",
    "250 g de farine de riz\n60 g de beurre froid\n12 g de levure chimique\n130 ml de lait\n\nSablez la farine avec le beurre du bout des doigts. Ajoutez le lait et amalgamez sans pétrir. Aplatissez sur 2,5 cm d'épaisseur et découpez 8 ronds. Laissez reposer 15 minutes au frais. Faites cuire 14 minutes à 220 °C sur une plaque garnie de papier cuisson.",
    { method: "cut-in", rest: [15, 15], minutes: [14, 14], celsius: 220, lining: "paper", count: 8 },
  ],
  [
    "Bizcocho de almendra",
    "200 g de almendra molida\n150 g de azúcar\n4 huevos\n8 g de polvo de hornear\n\nBate los huevos con el azúcar hasta que blanqueen y tripliquen su volumen. Incorpora la almendra y el polvo de hornear. Vierte en un molde redondo de 22 cm forrado con papel de horno. Hornea 35 minutos a 175 °C. Deja enfriar por completo en el molde.",
    { method: "whisked", tin: null, minutes: [35, 35], celsius: 175, lining: "paper" },
  ],
];

test.each([
  ["Kuchen", "Schale von 1 Zitrone", "lemon-zest"],
  ["Kuchen", "abgeriebene Schale einer Zitrone", "lemon-zest"],
  ["Kuchen", "Saft von 2 Orangen", "orange-juice"],
  ["Gâteau", "le zeste d'un citron", "lemon-zest"],
  ["Gâteau", "le jus de 2 oranges", "orange-juice"],
  ["Bizcocho", "ralladura de 1 limón", "lemon-zest"],
  ["Bizcocho", "el zumo de 2 limones", "lemon-juice"],
  ["Torta", "scorza di 1 limone", "lemon-zest"],
  ["Torta", "la scorza grattugiata di un'arancia", "orange-zest"],
])("%s: %s is what it says, not the whole fruit", (title, line, id) => {
  const beside = { Kuchen: "200 g Reismehl\n100 g Zucker", Gâteau: "200 g de farine de riz\n100 g de sucre", Bizcocho: "200 g de harina de arroz\n100 g de azúcar", Torta: "200 g di farina di riso\n100 g di zucchero" }[title]; // prettier-ignore
  expect(readRecipe(`${title}\n${beside}\n${line}`, "metric").lines.find(({ source }) => source === line)).toMatchObject({ ingredientId: id, state: "read" }); // prettier-ignore
});

test.each([
  ["1 lemon, zest and juice", ["lemon-zest", "lemon-juice"]],
  ["2 oranges, juice and zest", ["orange-juice", "orange-zest"]],
  ["1 lime (zested and juiced)", ["lime-zest", "lime-juice"]],
])("%s is both", (line, ids) =>
  expect(
    readRecipe(`Loaf\n200 g sorghum flour\n${line}`, "metric")
      .lines.filter(({ source }) => source === line)
      .map(({ ingredientId }) => ingredientId),
  ).toEqual(ids),
);

test("one English line with a food that other tongues call the same is English", () =>
  expect(readRecipe("Sam: ok so half a cup psyllium husk", "metric").language).toBeUndefined());

const pair = (range: { low: number; high: number } | null | undefined): [number, number] | null | undefined =>
  range ? [range.low, range.high] : range;

test.each(texts)("%s is told in its own language", (title, text, told) => {
  const { process, minutes, oven, pan } = readRecipe(`${title}\n${text}`, "metric");
  const found: Told = {
    minutes: pair(minutes) as [number, number],
    celsius: oven?.celsius ?? NaN,
    ...(told.method === undefined ? {} : { method: process?.method ?? "none" }),
    ...(told.rest === undefined ? {} : { rest: pair(process?.rests[0]?.minutes) as [number, number] }),
    ...(told.soak === undefined ? {} : { soak: pair(process?.soaks[0]?.minutes) as [number, number] }),
    ...(told.tin === undefined ? {} : { tin: pair(process?.tin?.minutes) as [number, number] }),
    ...(told.lining === undefined ? {} : { lining: pan?.lining ?? "none" }),
    ...(told.count === undefined ? {} : { count: process?.shape?.count ?? NaN }),
  };
  expect(found).toEqual(told);
});
