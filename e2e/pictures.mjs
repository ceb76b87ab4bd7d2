/** Takes the pictures of docs/screenshots from a running demo: ./jigsaw demo, then node e2e/pictures.mjs [address] */
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const base = process.argv[2] ?? 'http://localhost:3000';
const folder = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'docs/screenshots');
const password = 'brine and bubbles';
const [ilse, noor, fergus] = ['ilse.marrow', 'noor.haddad-lindqvist', 'fergus.macallan'];

const open = (name) => async (page) => {
  await page.getByRole('link', { name }).first().click();
};
const why = async (page) => {
  await page.getByRole('gridcell', { name: /^Cask, Ferment report/ }).click();
};
const sitInAsNoor = async (page) => {
  await page.getByRole('checkbox', { name: /Noor Haddad/ }).click();
  await page.getByRole('link', { name: /^Sit in as Noor/ }).click();
  await page.getByRole('radio', { name: 'With a phone beside it' }).click();
  await page.waitForTimeout(1500);
};
const openThenPage = (name, pageName) => async (page) => {
  await open(name)(page);
  await page.getByRole('link', { name: pageName }).click();
};
const atTheDesk = (activity, unit) => async (page) => {
  await page.getByRole('button', { name: /Activity/ }).click();
  await page.getByRole('option', { name: activity }).click();
  await page.getByRole('link', { name: unit }).click();
  await page.getByText('Method and curve').waitFor();
};
const classFile =
  'Number;Surname;First;E-Mail;Lab experience\nfe-0401;Haddad-Lindqvist;Noor;noor.haddad-lindqvist@quillmere.example;some\nfe-0900;Ó Briain;Cormac;cormac.obriain@quillmere.example;none\nfe-0901;Tanaka;Mei;mei.tanaka(at)quillmere.example;none\nfe-0408;Okoye;Ifeoma;ifeoma.okoye@quillmere.example;plenty\n';
const importPeople = async (page) => {
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'roster-week-7.csv', mimeType: 'text/csv', buffer: Buffer.from(classFile) });
  await page.getByRole('button', { name: 'Cancel import' }).waitFor();
};
const select = async (page) => {
  await page.getByRole('grid', { name: 'Unplaced students' }).getByRole('row').first().click();
  await page
    .getByRole('grid', { name: 'Unplaced students' })
    .getByRole('row')
    .nth(1)
    .click({ modifiers: ['Control'] });
};

const dealByRules = async (page) => {
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Deal by rules/ }).click();
  await page.getByText('All 48', { exact: true }).click();
  await page.getByRole('button', { name: 'Seed…' }).click();
  await page.getByRole('textbox', { name: 'Seed' }).fill('1696');
  await page.getByRole('button', { name: 'Deal with this seed' }).click();
  await page.getByRole('button', { name: /^Accept for/ }).waitFor();
  const why = page.getByRole('button', { name: /^Why rule/ }).first();
  if (!(await why.isVisible())) return;
  await why.click();
  await page.getByRole('button', { name: /^(Keep as it is|Close)$/ }).waitFor();
};
const setUp = async (page) => {
  await page.getByLabel('Name of the set').fill('Fair stands');
  await page.getByText(/^Deal by rules/).click();
  await page.getByRole('button', { name: 'Add: Discussion' }).click();
  await page.keyboard.type('Planning the stand');
  await page.getByRole('button', { name: 'Add: Assignment' }).click();
  await page.keyboard.type('Poster');
};

/** name, who, where, what is done first, size and theme */
const pictures = [
  ['people', ilse, 'people'],
  ['import', ilse, 'people/import', importPeople],
  ['board', ilse, 'groups', select],
  ['new-set', ilse, 'groups/new', setUp],
  ['deal', ilse, 'groups', dealByRules],
  ['release', ilse, 'release'],
  ['sightlines', ilse, 'release/sightlines', why],
  ['composer', ilse, 'release', open(/Week 3 tasting critique/)],
  ['rooms', ilse, 'rooms'],
  ['desk', ilse, 'marks', atTheDesk('Ferment report', /Stoneware/)],
  ['gradebook', ilse, 'marks/gradebook'],
  ['sit-in', ilse, 'people', sitInAsNoor],
  ['sign-up', noor, 'due', open(/Tasting panels/)],
  ['room', noor, 'room'],
  ['work', noor, 'room', open(/Brine kinetics/)],
  ['discussion', noor, 'room', open(/tasting critique/)],
  ['wiki', noor, 'room', openThenPage(/Starter culture log/, /^Days 15/)],
  ['messages', ilse, 'messages', open(/Your second crock/)],
  ['my-marks', fergus, 'my-marks'],
];

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
for (const [name, who, where, prepare, { dark = false } = {}] of pictures) {
  const context = await browser.newContext({
    baseURL: base,
    viewport: { width: 1280, height: 800 },
    colorScheme: dark ? 'dark' : 'light',
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
  });
  const page = await context.newPage();
  let address = where;
  if (who) {
    await context.request.post('/api/session', { data: { email: `${who}@quillmere.example`, password } });
    const { courses } = await (await context.request.get('/api/courses')).json();
    address = `/c/${courses[0].id}/${where}`;
  }
  await page.goto(address);
  await page.getByRole('navigation', { name: 'Stations' }).waitFor();
  await page.waitForTimeout(1200); // fonts of names in other scripts come last
  if (prepare) {
    await prepare(page);
    await page.waitForTimeout(1200);
  }
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  console.log(name);
  await context.close();
}
await browser.close();
