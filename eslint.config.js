const tseslint = require("typescript-eslint");
const hooks = require("eslint-plugin-react-hooks");
const prettier = require("eslint-config-prettier");

const { FRONT, layers } = require("./scripts/layers.mjs");

/** The folders of the core and of the app in the order in which data flows; none imports from a later one. */
const grammar = layers["packages/core/src"].filter((folder) => folder !== FRONT);
const capabilities = layers["apps/web"];
/** Imports of a folder of the app from outside of it, at whatever depth. */
const fromFolder = (folder) => ({
  regex: `^(?:\\.\\./)+(?:features/)?${folder.replace("features/", "")}(?:/|$)`,
  message: `This comes before ${folder}/: data flows down the list in scripts/layers.mjs.`,
});

const forbid = (patterns) => ({ "@typescript-eslint/no-restricted-imports": ["error", { patterns }] });
/** The page holds no kitchen: of the core it takes types and the entries `page*`, of the contract and of Zod types; the rest is asked of the workers. */
const kitchen = [
  {
    regex: "^(@uprise/core|@uprise/contract|zod)$",
    allowTypeImports: true,
    message: "The page takes types only; values come from @uprise/core/page* or from a worker (device/workers).",
  },
  { regex: "^@uprise/core/(?!page)", message: "The page takes the core by its entries @uprise/core/page*." },
];
const outside = {
  group: ["@uprise/contract", "@uprise/server", "@uprise/web", "react", "react-*", "node:*", "fs", "path"],
  message: "The core is pure: no interface, no Node, no later package.",
};

module.exports = [
  {
    ignores: [
      "**/node_modules/**",
      "**/dist/**",
      "**/.expo/**",
      "data/**",
      "release/**",
      "**/*.d.ts",
      "apps/web/public/**",
      "tmp/**",
    ],
  },
  ...tseslint.configs.strict,
  {
    files: ["**/*.{ts,tsx}"],
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/consistent-type-imports": ["error", { fixStyle: "inline-type-imports" }],
      "@typescript-eslint/no-dynamic-delete": "off",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { argsIgnorePattern: "^_", varsIgnorePattern: "^_", ignoreRestSiblings: true },
      ],
    },
  },
  { files: ["packages/core/src/**/*.ts"], rules: forbid([outside]) },
  ...grammar.map((folder, i) => ({
    files: [`packages/core/src/${folder}/**/*.ts`],
    ignores: ["**/*.test.ts"],
    rules: forbid([
      outside,
      ...grammar.slice(i + 1).map((later) => ({
        group: [`../${later}/*`, `../${later}`],
        message: `${folder}/ comes before ${later}/: data flows down the list in HOUSE order.`,
      })),
    ]),
  })),
  {
    // Kernels on typed arrays: every index is in range by construction, and a check in the loop would cost what the kernel is for.
    files: [
      "packages/core/src/trial/cut-face.ts",
      "packages/core/src/picture/{gray,light,skew,flatten,closer}.ts",
      "packages/core/src/bake/{kernel,heat,conduct,kinks,skin,vapour,boil,seep,rise,front,spread,lay-on,cool,desorb,section,slabs,run,probe,done,steam-tables,through,outcome}.ts",
      "packages/core/src/bake/*.test.ts",
    ],
    rules: { "@typescript-eslint/no-non-null-assertion": "off" },
  },
  {
    files: ["packages/contract/src/**/*.ts"],
    rules: forbid([
      {
        group: ["@uprise/server", "@uprise/web", "react", "react-*", "node:*", "fastify*", "sequelize"],
        message: "The contract knows only the core and Zod.",
      },
    ]),
  },
  {
    files: ["apps/server/src/**/*.ts"],
    rules: forbid([{ group: ["@uprise/web", "react", "react-*"], message: "The server does not know the app." }]),
  },
  {
    files: ["apps/server/src/**/*.ts"],
    ignores: ["apps/server/src/store/**"],
    rules: forbid([
      { group: ["@uprise/web", "react", "react-*"], message: "The server does not know the app." },
      { group: ["sequelize", "sqlite3", "umzug"], message: "Only store/ knows Sequelize." },
    ]),
  },
  {
    files: ["apps/web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      ...forbid([
        { group: ["@uprise/server", "sequelize", "fastify*", "node:*"], message: "The app talks to the server over the wire." },
        { regex: "^lucide-react-native$", message: "Import one icon: lucide-react-native/icons/<name>." },
      ]),
    },
  },
  {
    files: ["apps/web/features/**/*.{ts,tsx}", "apps/web/ui/**/*.{ts,tsx}", "apps/web/app/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-syntax": ["error", { selector: "Literal[value=/^#[0-9a-fA-F]{3,8}$/]", message: "Colours come from theme/." }],
    },
  },
  ...capabilities.map((folder, i) => ({
    files: [`apps/web/${folder}/**/*.{ts,tsx}`],
    ignores: ["**/*.test.{ts,tsx}", "**/*.fixture.{ts,tsx}"],
    rules: forbid([
      { group: ["@uprise/server", "sequelize", "fastify*", "node:*"], message: "The app talks to the server over the wire." },
      { regex: "^lucide-react-native$", message: "Import one icon: lucide-react-native/icons/<name>." },
      ...(folder === "workers" ? [] : kitchen),
      ...capabilities.slice(i + 1).map(fromFolder),
    ]),
  })),
  { files: ["**/*.{js,mjs,cjs}"], rules: { "@typescript-eslint/no-require-imports": "off", "no-undef": "off" } },
  prettier,
];
