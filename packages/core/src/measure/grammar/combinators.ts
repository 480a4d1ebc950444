import type { Token } from "./tokens";

/** What a parser found, and where it ended. */
export interface Parsed<T> {
  value: T;
  next: number;
}

/** Reads something of the tokens from a place on, or says null and has read nothing. */
export type Parser<T> = (tokens: readonly Token[], at: number) => Parsed<T> | null;

/** One token that passes a test. */
export const token =
  (test: (token: Token) => boolean): Parser<Token> =>
  (tokens, at) => {
    const here = tokens[at];
    return here && test(here) ? { value: here, next: at + 1 } : null;
  };

/** One of some words, in lower case. */
export const word = (...words: string[]): Parser<Token> => {
  const set = new Set(words);
  return token((t) => t.kind === "word" && set.has(t.lower));
};

export const sign = (...signs: string[]): Parser<Token> => token((t) => t.kind === "sign" && signs.includes(t.text));

export const map =
  <A, B>(parser: Parser<A>, make: (value: A) => B | null): Parser<B> =>
  (tokens, at) => {
    const found = parser(tokens, at);
    if (!found) return null;
    const value = make(found.value);
    return value === null ? null : { value, next: found.next };
  };

/** The first of some parsers that finds something. */
export const first =
  <T>(...parsers: Parser<T>[]): Parser<T> =>
  (tokens, at) => {
    for (const parser of parsers) {
      const found = parser(tokens, at);
      if (found) return found;
    }
    return null;
  };

type Values<P extends Parser<unknown>[]> = { [K in keyof P]: P[K] extends Parser<infer T> ? T : never };

/** Some parsers one after the other. */
export const inTurn =
  <P extends Parser<unknown>[]>(...parsers: P): Parser<Values<P>> =>
  (tokens, at) => {
    const values: unknown[] = [];
    let next = at;
    for (const parser of parsers) {
      const found = parser(tokens, next);
      if (!found) return null;
      values.push(found.value);
      next = found.next;
    }
    return { value: values as Values<P>, next };
  };

/** A parser that need not find anything; null where it does not. */
export const maybe =
  <T>(parser: Parser<T>): Parser<T | null> =>
  (tokens, at) =>
    parser(tokens, at) ?? { value: null, next: at };

/** As many as there are, perhaps none. */
export const many =
  <T>(parser: Parser<T>): Parser<T[]> =>
  (tokens, at) => {
    const values: T[] = [];
    let next = at;
    for (let found = parser(tokens, next); found && found.next > next; found = parser(tokens, next)) {
      values.push(found.value);
      next = found.next;
    }
    return { value: values, next };
  };

/** What a parser found at each place of some tokens is remembered: asked again, it is not looked for again. */
export function remembered<T>(parser: Parser<T>): Parser<T> {
  const known = new WeakMap<readonly Token[], (Parsed<T> | null | undefined)[]>();
  return (tokens, at) => {
    let places = known.get(tokens);
    if (!places) known.set(tokens, (places = []));
    const before = places[at];
    return before !== undefined ? before : (places[at] = parser(tokens, at));
  };
}
