/** One backup or one restore in a separate process, to be killed: `leavingChild.ts DEMO-URL HOME backup|restore NAME`. Prints a line once it begins, and one once it is done. */
import { openBackups } from "#db/backups/backups";
import { openWorkshops } from "#db/workshops/workshops";

const [url, home, what, name] = process.argv.slice(2) as [string, string, string, string];
const house = await openWorkshops(url, { loadDemo: () => Promise.resolve() });
const backups = await openBackups({ home, workshops: house, byThemselves: false });
console.log("begun");
if (what === "restore") await backups.restore({ name });
else backups.begin();
await backups.settled();
console.log("done");
const { ended } = await backups.state();
if (ended?.ok === false) console.error(ended.say);
await house.close();
process.exit(ended?.ok ? 0 : 1);
