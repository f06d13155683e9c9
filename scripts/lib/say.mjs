/** One line for the person at the terminal. */
export const say = (text) => process.stdout.write(`isobar: ${text}\n`);

/** Ends the program with what is wrong and how to mend it. */
export function giveUp(text) {
  process.stderr.write(`\nisobar: ${text}\n`);
  process.exit(1);
}
