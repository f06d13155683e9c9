import { writeBackup } from './lib/backup.mjs';

/* npm run backup -- FILE: the whole database in one file, while the app runs. */
await writeBackup(process.env.ISOBAR_DATA_DIR ?? '.isobar', process.argv[2]);
