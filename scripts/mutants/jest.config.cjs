const { resolve } = require("node:path");
const whole = require("../../jest.config.js");
const areas = require("./areas.cjs");

/** The tests of one area alone, as the whole suite runs them. */
const { project, tests } = areas[process.env.UPRISE_AREA];
const found = whole.projects.find(({ displayName }) => displayName === project);
module.exports = {
  ...found,
  rootDir: resolve(__dirname, "../..", found.rootDir),
  testMatch: tests.map((path) => `<rootDir>/${path}`),
  testTimeout: whole.testTimeout,
};
