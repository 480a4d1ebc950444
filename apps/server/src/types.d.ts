/** A processor of JSON-LD, for tests; it ships without types. */
declare module "jsonld" {
  const jsonld: {
    expand(input: object, options: { documentLoader: (url: string) => Promise<unknown> }): Promise<Record<string, unknown>[]>;
  };
  export default jsonld;
}
