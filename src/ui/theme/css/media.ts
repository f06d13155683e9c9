/** A screen too narrow for a table; paper never is. */
export const PHONE = '@media screen and (max-width: 639px)';
