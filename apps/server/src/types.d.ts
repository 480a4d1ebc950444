/** A processor of JSON-LD, for tests; it ships without types. */
declare module "jsonld" {
  const jsonld: {
    expand(input: object, options: { documentLoader: (url: string) => Promise<unknown> }): Promise<Record<string, unknown>[]>;
  };
  export default jsonld;
}

/** A client of WebSockets with headers of its own, for tests; it ships without types. */
declare module "ws" {
  export default class WebSocket {
    constructor(url: string, options?: { headers?: Record<string, string> });
    on(kind: "open" | "close" | "error", does: () => void): void;
    on(kind: "unexpected-response", does: (request: unknown, answer: { statusCode?: number; destroy(): void }) => void): void;
    terminate(): void;
  }
}
