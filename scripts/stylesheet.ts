import { mkdirSync, writeFileSync } from 'node:fs';
import { stylesheet } from '../src/ui/theme/stylesheet';

/* Writes the sheet that every page shares. Run by the build and before npm run dev. */

mkdirSync('generated', { recursive: true });
writeFileSync('generated/isobar.css', stylesheet());
