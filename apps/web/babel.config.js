module.exports = (api) => {
  api.cache(true);
  // Jest has no modules that are fetched later: there they are required.
  const plugins = process.env.NODE_ENV === "test" ? ["@babel/plugin-transform-dynamic-import"] : [];
  return { presets: ["babel-preset-expo"], plugins };
};
