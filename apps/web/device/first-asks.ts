/** Addresses that are asked from two places: by the page, and before it by the script that runs ahead of it (sw/early.ts). */
export const SHELF_PAGE = 200;
export const listPath = (q: string, page: number): string =>
  `/api/formulas?whole=true&pageSize=30&page=${page}&q=${encodeURIComponent(q)}`;
export const formulaPath = (id: string): string => `/api/formulas/${encodeURIComponent(id)}`;
export const ingredientsPath = (page: number): string => `/api/ingredients?own=true&pageSize=${SHELF_PAGE}&page=${page}`;
export const ovensPath = (page: number): string => `/api/ovens?pageSize=${SHELF_PAGE}&page=${page}`;
export const SESSION = "/api/session";

/** Where the answers that were asked for ahead wait for the page, by address. */
export interface Early {
  upriseEarly?: Map<string, Promise<Response | null>>;
}
