module.exports = {
  displayName: "web",
  preset: "jest-expo/web",
  testEnvironmentOptions: { customExportConditions: [""] },
  // The core is computation, not interface: it takes the way that makes its kernels fast in tests.
  transform: {
    "/packages/(core|contract)/src/.+\\.ts$": [
      require.resolve("../../scripts/jest-swc.cjs"),
      { jsc: { parser: { syntax: "typescript" }, target: "es2022" }, module: { type: "commonjs" } },
    ],
  },
  setupFiles: ["<rootDir>/jest.setup.js"],
  setupFilesAfterEnv: ["<rootDir>/jest.after.js"],
  testMatch: ["<rootDir>/**/*.test.tsx", "<rootDir>/**/*.test.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/dist/"],
  moduleNameMapper: {
    // Jest takes the form of these for old browsers, which needs no rewriting.
    "^(d3-contour|d3-array)$": "<rootDir>/../../node_modules/$1/dist/$1.js",
    "^@uprise/core$": "<rootDir>/../../packages/core/src/index.ts",
    "^@uprise/contract$": "<rootDir>/../../packages/contract/src/index.ts",
  },
};
