module.exports = {
  displayName: "web",
  preset: "jest-expo/web",
  testEnvironmentOptions: { customExportConditions: [""] },
  testMatch: ["<rootDir>/**/*.test.tsx", "<rootDir>/**/*.test.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/dist/"],
  moduleNameMapper: {
    "^@uprise/core$": "<rootDir>/../../packages/core/src/index.ts",
    "^@uprise/contract$": "<rootDir>/../../packages/contract/src/index.ts",
  },
};
