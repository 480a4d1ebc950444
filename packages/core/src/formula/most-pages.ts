/** The photographs of so many pages are kept with a formula. */
export const MOST_PAGES = 6;
