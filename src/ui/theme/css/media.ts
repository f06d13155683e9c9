/** A screen too narrow for a table; paper never is. */
export const PHONE = '@media screen and (max-width: 639px)';

/** Room for a table of many columns. */
export const DESK = '@media screen and (min-width: 1024px)';

/** A screen too narrow for a table of many columns. */
export const TABLET = '@media screen and (min-width: 640px) and (max-width: 1023px)';
