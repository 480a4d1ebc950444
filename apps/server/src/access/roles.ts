/**
 * Who may make a call. Every route declares it in its `config`; one that declares none is the baker's, so that what is forgotten is closed.
 * The guard goes by the route that was matched, never by the text of an address.
 */
export type RouteRole = "anybody" | "helper" | "baker";

interface Declared {
  config: { role: RouteRole };
}

/** A route as it was declared; null where it says nothing of who may call it. */
export interface DeclaredRoute {
  method: string;
  url: string;
  role: RouteRole | null;
}

declare module "fastify" {
  interface FastifyContextConfig {
    role?: RouteRole;
  }
  interface FastifyInstance {
    /** Every route of this server with who may call it. */
    declaredRoutes: () => DeclaredRoute[];
  }
}

/** What the page itself is made of, whether a passcode is asked, and the way in. */
export const forAnybody: Declared = { config: { role: "anybody" } };
/** What a helper at the counter looks at, reckons and writes down. */
export const forHelpers: Declared = { config: { role: "helper" } };
/** Formulas, shelves, settings, and everything that goes out or comes in. */
export const forBakers: Declared = { config: { role: "baker" } };

const rank: Record<RouteRole, number> = { anybody: 0, helper: 1, baker: 2 };

/** Whether somebody in this role, or nobody that is known, may call a route of that one. */
export const may = (who: "nobody" | "helper" | "baker", route: RouteRole): boolean =>
  (who === "nobody" ? 0 : rank[who]) >= rank[route];
