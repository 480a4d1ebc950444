const { createTransformer } = require("@swc/jest");

/**
 * @swc/jest with the built-ins of hot loops bound in each module. Tests run in a context of their own, in which a look-up of a global goes through an
 * interceptor every time: the bake's kernels spend most of their time there otherwise. Nothing else of the code changes.
 */
const BOUND =
  "const Math=globalThis.Math,Number=globalThis.Number,Float64Array=globalThis.Float64Array,Float32Array=globalThis.Float32Array,Infinity=globalThis.Infinity;";

module.exports = {
  createTransformer(options) {
    const swc = createTransformer(options);
    return {
      ...swc,
      process(source, filename, more) {
        const { code, ...rest } = swc.process(source, filename, more);
        return { ...rest, code: code.replace(/^"use strict";/, `"use strict";${BOUND}`) };
      },
      getCacheKey: (...args) => `${swc.getCacheKey?.(...args) ?? ""}${BOUND.length}`,
    };
  },
};
