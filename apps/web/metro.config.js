const http = require("node:http");
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

/** Zod carries its messages in fifty languages, a fifth of the first script; the ones shown here are our own. */
config.resolver.resolveRequest = (context, name, platform) =>
  /locales\/index\.js$/.test(name) && /[\\/]zod[\\/]/.test(context.originModulePath)
    ? { type: "empty" }
    : context.resolveRequest(context, name, platform);

/** The worker's name is written into the script that starts it; what was kept from a build with another worker would ask for one that is gone. */
config.cacheVersion = process.env.EXPO_PUBLIC_KITCHEN_WORKER ?? "";

module.exports = config;
