/** A colour of ours as an SVG attribute takes it. @param token such as ink or ramp.3 */
export const paint = (token: string): string =>
  `var(--chakra-colors-${token.replace('.', '-').replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`;
