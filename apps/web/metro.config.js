const http = require("node:http");
const path = require("node:path");
const { getDefaultConfig } = require("expo/metro-config");

const config = getDefaultConfig(__dirname);

/** In development the app's calls to /api go on to the server, so that the app is the same in both. */
config.server.enhanceMiddleware = (metro) => (request, response, next) => {
  if (!request.url.startsWith("/api")) return metro(request, response, next);
  const onward = http.request(
    {
      host: "127.0.0.1",
      port: Number(process.env.PORT ?? 4173),
      path: request.url,
      method: request.method,
      headers: request.headers,
    },
    (answer) => {
      response.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(response);
    },
  );
  onward.on("error", () => response.writeHead(502).end());
  return request.pipe(onward);
};

/** What the router carries for native applications, and this one never draws: tabs, stacks, headers, its own map of pages. */
const UNUSED =
  /[\\/]expo-router[\\/]build[\\/](?:react-navigation[\\/](?:elements|bottom-tabs|native-stack|stack)[\\/]|layouts[\\/](?:Stack(?:\.web)?\.js|BaseStack|_web-modal|experimental-stack|stack-utils|Tabs|Drawer)|views[\\/]Sitemap\.js|link[\\/](?:LinkWithPreview|elements|preview[\\/]HrefPreview)\.js)/;
/** Who needs React Native as a whole: charts, which are animated, and the one list that is virtual. */
const WHOLE = /[\\/]node_modules[\\/](?:react-native-gifted-charts|gifted-charts-core|expo-linear-gradient|react-native-web)[\\/]/;
const SLIM = path.join(__dirname, "slim-native.js");
const NO_SCREENS = path.join(__dirname, "no-screens.js");

config.resolver.resolveRequest = (context, name, platform) => {
  if (/locales\/index\.js$/.test(name) && /[\\/]zod[\\/]/.test(context.originModulePath)) return { type: "empty" };
  if (platform !== "web") return context.resolveRequest(context, name, platform);
  if (name === "react-native-screens" || /fork\/native-stack\/createNativeStackNavigator$/.test(name))
    return { type: "sourceFile", filePath: NO_SCREENS };
  if (/^react-native(?:-web(?:\/dist\/(?:cjs\/)?index)?)?$/.test(name) && !WHOLE.test(context.originModulePath))
    return { type: "sourceFile", filePath: SLIM };
  const found = context.resolveRequest(context, name, platform);
  return found.type === "sourceFile" && UNUSED.test(found.filePath) ? { type: "empty" } : found;
};

/** A module is run when something of it is first used: what only a later press needs does not hold up the first page. */
config.transformer.getTransformOptions = async () => ({ transform: { experimentalImportSupport: false, inlineRequires: true } });

/** The worker's name is written into the script that starts it; what was kept from a build with another worker would ask for one that is gone. */
config.cacheVersion = `${process.env.EXPO_PUBLIC_KITCHEN_WORKER ?? ""} ${process.env.EXPO_PUBLIC_PAGE_READING ?? ""}`;

module.exports = config;
