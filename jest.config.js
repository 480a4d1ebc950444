const swc = {
  "^.+\\.(t|j)sx?$": [
    require.resolve("./scripts/jest-swc.cjs"),
    { jsc: { parser: { syntax: "typescript", tsx: true }, target: "es2022" }, module: { type: "commonjs" } },
  ],
};
const node = (displayName, root, extra = {}) => ({
  displayName,
  rootDir: root,
  testEnvironment: "node",
  transform: swc,
  moduleNameMapper: {
    "^@uprise/core$": "<rootDir>/../../packages/core/src/index.ts",
    "^@uprise/contract$": "<rootDir>/../../packages/contract/src/index.ts",
  },
  testMatch: ["<rootDir>/src/**/*.test.ts"],
  ...extra,
});

module.exports = {
  // A machine under load bakes more slowly; nothing in the tests is timed.
  testTimeout: 60_000,
  projects: [
    node("core", "packages/core", { testMatch: ["<rootDir>/{src,corpus}/**/*.test.ts"] }),
    node("contract", "packages/contract"),
    node("server", "apps/server"),
    "<rootDir>/apps/web/jest.config.js",
    {
      ...node("e2e", "e2e"),
      testMatch: ["<rootDir>/*.e2e.ts"],
      globalSetup: "<rootDir>/template.ts",
      setupFilesAfterEnv: ["<rootDir>/again.cjs"],
      moduleNameMapper: { "^@uprise/core$": "<rootDir>/../packages/core/src/index.ts" },
    },
  ],
};
