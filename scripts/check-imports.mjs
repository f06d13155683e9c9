import { cruise } from 'dependency-cruiser';
import config from '../.dependency-cruiser.mjs';

/* Imports go one way: app → server → {db, core, simulators}, app → ui → core, workers → server|core, simulators → core, db → core. */

const { output } = await cruise(['src'], {
  ...config.options,
  ruleSet: { forbidden: config.forbidden },
  validate: true,
});
const { totalCruised, violations } = output.summary;
// Without a compiler it understands, the tool sees nothing and is content: that must not pass.
if (totalCruised < 20) throw new Error(`only ${totalCruised} modules were read`);
for (const { rule, from, to } of violations) process.stderr.write(`${rule.name}: ${from} → ${to}\n`);
process.stdout.write(`imports: ${totalCruised} modules, ${violations.length} against the direction\n`);
process.exit(violations.length > 0 ? 1 : 0);
