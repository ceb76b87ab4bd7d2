/** Search over 1,000 people in the page: from a key to the rows that it leaves, drawn.
 * Run it after a build: node bench/rosterSearch.mjs [people] */
import { aClassOf, keyTimes, sayShares, withInstallation } from './installation.mjs';

const people = Number(process.argv[2] ?? 1000);
const limitMs = 50;

await withInstallation(async ({ context, ask }) => {
  const course = await aClassOf(ask, people);
  const page = await context.newPage();
  await page.goto(`/c/${course.id}/people`);
  await page.getByPlaceholder(/Find a name/).click();
  const took = await keyTimes(page, ['wisniewska', 'lukasz 7', 'p99', 'καραθανου', 'seren']);
  console.log(`${people} people, ${took.length} keys: ${sayShares(took, limitMs)}`);
  if (took[Math.floor(took.length / 2)] > limitMs) process.exitCode = 1;
});
