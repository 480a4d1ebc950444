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

module.exports = config;
