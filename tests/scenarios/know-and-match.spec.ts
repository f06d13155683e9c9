import type { Locator } from '@playwright/test';
import QRCode from 'qrcode';
import { expect, test, User } from './user';

/** Types into a page that has just been opened, until it answers. */
async function retyped(field: Locator, text: string, answer: Locator): Promise<void> {
  await expect(async () => {
    await field.fill('');
    await field.fill(text);
    await expect(answer).toBeVisible({ timeout: 1000 });
  }).toPass();
}

test('an engine is drawn as it is typed, and what is inconsistent is said at once', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Engines');
  await page.getByRole('link', { name: 'New engine family' }).click();
  await page.getByLabel('Code').fill('AG-90X');
  await page.getByLabel('Name', { exact: true }).fill('9.0 l V8 for a test');
  const drawing = page.getByRole('group', { name: 'The engine as typed' });
  await expect(drawing.getByText('4', { exact: true })).toBeVisible();
  await page.getByLabel('Firing order').fill('1 3 4 4');
  await expect(page.getByText('the firing order must name each cylinder once, got 1 3 4 4')).toBeVisible();
  await page.getByLabel('Arrangement').selectOption('v');
  await page.getByLabel('Mounting').selectOption('longitudinal');
  await page.getByLabel(/^Bank 1/).fill('1 3 5 7');
  await page.getByLabel('Its place').first().selectOption('left');
  await page.getByLabel('Bank 2').fill('2 4 6 8');
  await page.getByLabel('Its place').last().selectOption('right');
  await page.getByLabel('Firing order').fill('1 8 4 3 6 5 7 2');
  await page.getByLabel('Plugs a cylinder').selectOption('2');
  await expect(page.getByText(/Consistent: 16 plugs · 8 coils/)).toBeVisible();
  await expect(drawing.getByText('8B')).toBeVisible();
  await page.getByLabel(/^Plugs that each coil fires/).fill('1, 2, 3, 4, 5, 6, 7');
  await expect(page.getByText('no coil fires plug 8A, 8B')).toBeVisible();
  await page.getByLabel(/^Plugs that each coil fires/).fill('');
  await page.getByRole('button', { name: 'Add a fastener' }).click();
  await page.getByLabel('Fastener 1').fill('coil bolt');
  await page.getByLabel('Size 1').selectOption('M6');
  await page.getByLabel('Count 1').fill('16');
  await page.getByLabel(/^Torque, with its unit 1/).fill('90 Nm');
  await page.getByRole('button', { name: 'Save the engine family' }).click();
  await expect(page.getByText(/far from the usual 6 to 12 N·m/)).toBeVisible();
  await page.getByLabel(/^Torque, with its unit 1/).fill('9 Nm');
  // A list that is pasted becomes rows.
  await page.getByRole('button', { name: 'Add a fastener' }).click();
  await page.getByLabel('Fastener 2').evaluate((cell, text) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', text);
    cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, 'cover bolt M6 x4 8 Nm captive; intake bolt M8 x8 20 Nm centre outward');
  await expect(page.getByLabel('Fastener 3')).toHaveValue('intake bolt');
  await expect(page.getByLabel('Order 3')).toHaveValue('centre_outward');
  await page.getByRole('button', { name: 'Remove fastener 2' }).click();
  await expect(page.getByLabel('Fastener 2')).toHaveValue('intake bolt');
  await page.getByRole('button', { name: 'Save the engine family' }).click();
  await expect(page).toHaveURL(/\/engines$/);
  await page.getByRole('link', { name: 'AG-90X' }).click();
  await expect(page.getByText('16 plugs · 8 coils')).toBeVisible();
  await user.tab('Specs');
  await expect(page.getByText('No sheet yet: nothing can be fitted to this engine.')).toBeVisible();
});

test('a site of the drawing leads to its row, by keyboard too', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer');
  await user.goTo('Engines');
  await page.getByRole('link', { name: 'SX-29B' }).click();
  await page.getByRole('link', { name: 'Cylinder 3, plug B' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/#site-3B$/);
  await expect(user.row(/^3Bleft bank, 6th hole of 6 from the front3, lower/)).toBeInViewport();
});

test('a spec is entered, refused where it cannot be, and checked by another person', async ({ page }) => {
  const user = new User(page);
  await user.signIn('clerk');
  await user.goTo('Engines');
  await page.getByRole('link', { name: 'AG-13R' }).click();
  await page.getByRole('link', { name: 'New spec sheet' }).click();
  await page.getByLabel('Part number *').fill('EM-7205');
  await page.getByLabel('Gap', { exact: true }).fill('0.80 to 0.70 mm');
  await page.getByLabel('Torque', { exact: true }).fill('15 to 19 lbf·in');
  await page.getByLabel('Interval', { exact: true }).fill('60000 km');
  await page.getByLabel('Source kind').selectOption('bulletin');
  await page.getByLabel('Source document *').fill('Demo data: bulletin for a test');
  await page.getByRole('button', { name: 'Save the sheet, unchecked' }).click();
  await expect(page.getByText(/the range is upside down/)).toBeVisible();
  await expect(page.getByText(/did you mean/)).toBeVisible();
  await page.getByLabel('Gap', { exact: true }).fill('0.70 to 0.80 mm');
  await page.getByLabel('Torque', { exact: true }).fill('15 to 19 Nm');
  await page.getByRole('button', { name: 'Save the sheet, unchecked' }).click();
  await expect(page).toHaveURL(/\/engines\/[0-9a-f-]+\/specs$/);
  const row = user.row('bulletin for a test');
  await expect(row).toContainText('by L. Brand; not checked');
  await expect(row.getByRole('button')).toHaveCount(0);
  await user.signOut();
  await expect(page).toHaveURL(/sign-in/);
  await user.signIn('technician');
  await user.goTo('Engines');
  await page.getByRole('link', { name: 'AG-13R' }).click();
  await user.tab('Specs');
  await row.getByRole('button', { name: 'I have compared it with its source' }).click();
  await expect(row).toContainText('checked by M. Vane');
});

test('vehicles without a match are resolved one question at a time', async ({ page }) => {
  const user = new User(page);
  await user.signIn('clerk');
  await page.goto('/engines/unmatched');
  await expect(page.getByRole('heading', { name: /TV-28: When was it built/ })).toBeVisible();
  const resolve = page.getByLabel(/Day of build.*unit 152/);
  await resolve.fill('last year');
  await page.locator('form').filter({ has: resolve }).getByRole('button', { name: 'Resolve' }).click();
  await expect(page.getByText('Give a day, as 2019-04-30.')).toBeVisible();
  await resolve.fill('2016-05-01');
  await page.locator('form').filter({ has: resolve }).getByRole('button', { name: 'Resolve' }).click();
  await expect(page.getByRole('heading', { name: /TV-28/ })).toHaveCount(0);
});

test('a part in hand is typed wrong, read from a photo, and never guessed', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Parts');
  const number = page.getByLabel('Number on the part or its box');
  await number.fill('FS-521O');
  await page.keyboard.press('Enter');
  await expect(page.getByText('FS-521O is not in the catalogue.')).toBeVisible();
  await expect(page.getByText(/O read for 0/)).toBeVisible();
  await page.getByRole('link', { name: 'FS-5210' }).first().click();
  await expect(page.getByText('Only as a whole set')).toBeVisible();
  await page.getByLabel('For unit').fill('133');
  await page.getByRole('button', { name: 'What is it?' }).click();
  await expect(page.getByText('Unit 133: Yes: it may go in (8 of them).')).toBeVisible();
  await page.getByLabel('For unit').fill('11');
  await page.getByRole('button', { name: 'What is it?' }).click();
  await expect(page.getByText('Unit 11: No. Its sheet names another part.')).toBeVisible();
  await page.getByLabel('For unit').fill('');
  const photo = page.getByLabel('Read a code from a photo');
  await photo.setInputFiles({
    name: 'box.png',
    mimeType: 'image/png',
    buffer: await QRCode.toBuffer('EM-7301', { width: 300 }),
  });
  await expect(page.getByText(/Today it is EM-7310, the same part under a new number/)).toBeVisible();
  await expect(number).toHaveValue('EM-7301');
  const blank = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAoAAAAKCAIAAAACUFjqAAAAEklEQVR4nGP8z4APMOGVHbHSAEEsAROxCnMTAAAAAElFTkSuQmCC',
    'base64',
  );
  await photo.setInputFiles({ name: 'blank.png', mimeType: 'image/png', buffer: blank });
  await expect(page.getByText(/No code was found in this picture/)).toBeVisible();
  await expect(number).toHaveValue('EM-7301');
});

test('the bench judges a set, catches a slip, and its result stands on the work order', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Bench');
  await page.getByLabel('Spec sheet').selectOption({ label: 'PW-34M, EM-7310, Demo data: Pellworm engine book 34' });
  await page.getByLabel('Gaps measured').fill('0.80 0.81 0.79 0.80 0.80 0.81');
  await expect(
    page.getByText(/All alike, but 0.25 mm · 0.010 in too narrow: gapped for another application/).first(),
  ).toBeVisible();
  await page.getByLabel('Gaps measured').fill('1.05 1.05 1.06 0.30 in');
  await expect(page.getByText(/did you mean 0.030 in/)).toBeVisible();
  await page.getByLabel('Gaps measured').fill('1.05 1.05 1.06 0.92 1.05 1.04');
  await expect(page.getByText(/Plug 4 lies far from the rest: dropped/).first()).toBeVisible();
  await expect(user.row(/^4/)).toContainText('set it aside: dropped');
  await page.getByLabel('Bends of one plug so far').fill('+0.05 -0.03');
  await expect(page.getByText(/1 change of direction: discard this plug/)).toBeVisible();
  await page.getByLabel('Save it with work order').fill('1004');
  await page.getByRole('button', { name: 'Save this result' }).click();
  await expect(page.getByText('Saved with work order 1004.')).toBeVisible();
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1004' }).click();
  await user.tab('Record');
  await expect(page.getByText(/6 plugs EM-7310 for 1.00 to 1.10 mm: Plug 4 lies far/)).toBeVisible();
});

test('the torque planner follows threads, adapter and wrench', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await page.goto('/bench/torque');
  await page
    .getByLabel('Spec sheet')
    .selectOption({ label: 'SX-52L, FS-5210, serial 42000 on, Demo data: Saxholm workshop sheets 52L' });
  await page.getByLabel('Wrench').selectOption({ label: 'T2, 20 to 100 N·m' });
  await expect(page.getByText('26 N·m', { exact: true })).toBeVisible();
  await page.getByLabel('Threads').selectOption('anti_seize');
  await expect(page.getByText(/too low for this wrench|Do not use this wrench/).first()).toBeVisible();
  await page.getByLabel('Wrench').selectOption({ label: 'T1, 5 to 25 N·m' });
  await expect(page.getByText('18.25 N·m', { exact: true })).toBeVisible();
  await page.getByLabel('Adapter').fill('60');
  await expect(page.getByText('14.5 N·m', { exact: true })).toBeVisible();
  await page.getByLabel('Wrench').selectOption({ label: 'T3, 10 to 80 lbf·ft' });
  await expect(page.getByText(/Last calibrated on 2025-06-20, over 12 months ago/)).toBeVisible();
});

test('units, leads, caps and spark demand are worked out while typing', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer');
  await page.goto('/bench/convert');
  await retyped(page.getByLabel('As typed'), '0.30 in', page.getByRole('button', { name: /^0.030 in/ }));
  await page.getByRole('button', { name: /^0.030 in/ }).click();
  await expect(user.row('thou')).toContainText('30.0');
  await page.goto('/bench/leads');
  await expect(page.getByText(/^Fits, 130 mm of slack in all/).first()).toBeVisible();
  await retyped(
    page.getByLabel('Lengths in the box'),
    '300 330 360 540 580',
    page.getByText(/the set is not whole/).first(),
  );
  await page.getByLabel('Engine').selectOption({ label: 'TV-46D, 4.6 l inline 6, iron head, distributor' });
  await expect(page.getByText(/Left over: 380 mm, the coil lead/).first()).toBeVisible();
  await page.goto('/bench/firing');
  await expect(page.getByRole('img', { name: /Rotor clockwise: tower 1 cylinder 3/ })).toBeVisible();
  await retyped(
    page.getByLabel('Leads traced by hand'),
    '1=1 2=5',
    page.getByText(/set back turned by 2 towers: cylinder 1 now sits at tower 1/),
  );
  await page.getByLabel('Firing order').fill('1 5 3 6 2');
  await expect(page.getByText(/names each cylinder from 1 once/)).toBeVisible();
  await page.goto('/bench/spark');
  await retyped(page.getByLabel('Gap', { exact: true }), '1.00', page.getByText('1.00 mm · 0.039 in asks'));
  await page.getByLabel('Standard intake pressure').fill('100');
  await page.getByLabel('Boosted intake pressure').fill('170');
  await expect(page.getByText('0.59 mm · 0.023 in')).toBeVisible();
  await page.getByLabel('Gaps stated for boosts').fill('100=1.00 200=0.60');
  await expect(page.getByText(/lies between two stated boosts: take the tighter gap, 0.60 mm/)).toBeVisible();
});

test('one coil or all is worked out while typing, with the chance at which it turns', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer');
  await page.goto('/bench/coils');
  await expect(page.getByRole('status')).toContainText('Replace the one');
  await expect(page.getByText('It turns at a chance of 12.9 % each.')).toBeVisible();
  const chance = page.getByLabel('Chance that one fails before it is open anyway');
  await retyped(chance, '14', page.getByRole('status').getByText('Replace them all'));
  await expect(user.row('Replace 5 now')).toContainText('€200');
  await page.getByLabel('Coils that still work').fill('2.5');
  await expect(page.getByText('Give a whole number from 0 to 15.')).toBeVisible();
});

test('a delivery is judged, quarantined and resolved', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/parts/receiving');
  await page.getByLabel('Number that was ordered').fill('FS-2105');
  await page.getByLabel('How many').fill('4');
  await page.getByLabel('Order', { exact: true }).fill('PO-900');
  await page.getByLabel('Number on the box').fill('FS-2105');
  await page.getByLabel('Counted').fill('4');
  await page.getByLabel('Who sent it').fill('Market stall');
  await page.getByLabel('Price of one').fill('2,00');
  await page.getByLabel('Gaps measured').fill('0.75 0.75 0.76 0.74');
  await page.getByRole('button', { name: 'Check the delivery' }).click();
  await expect(page.getByText(/Quarantined, not on the shelf\. Market stall is no approved source/)).toBeVisible();
  await page.getByLabel('What became of PO-900, and why').fill('sent back by the Friday ferry');
  await page
    .locator('form')
    .filter({ hasText: 'What became of PO-900' })
    .getByRole('button', { name: 'Returned to the supplier' })
    .click();
  await expect(page.getByText(/Quarantined, then returned: sent back by the Friday ferry/)).toBeVisible();
});

test('a number with a suffix is read, told from another plug, and the suffix that is gapped right is named', async ({
  page,
}) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Parts');
  const look = async (number: string) => {
    await page.getByLabel('Number on the part or its box').fill(number);
    await page.getByRole('button', { name: 'What is it?' }).click();
  };
  await look('fs-2210 h6.95');
  // Two makers' sheets hold for it: each is told with the gap that suits both.
  const asked = page.getByText(/open it by 0\.1[23] mm · 0\.005 in\. .* makes it FS-2210H6\.105/);
  await expect(asked).toHaveCount(2);
  await expect(page.getByRole('link', { name: '23 clinic van' }).first()).toBeVisible();
  await look('FS-2210XH6');
  await expect(
    page.getByText('Its number reads as another plug than the one its base names. Do not fit it.'),
  ).toBeVisible();
  await expect(page.getByText('The number says without resistor, the catalogue with resistor.')).toBeVisible();
  await expect(page.getByRole('link', { name: '23 clinic van' })).toBeHidden();
  await page.getByRole('link', { name: 'Number codes' }).click();
  await expect(page.getByRole('heading', { name: 'Kilnmark' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the code' })).toBeHidden();
});

test('a seller is banned, its next delivery is quarantined, and an accepted batch is taken back off the shelf', async ({
  page,
}) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/parts/receiving');
  await page.getByText('Ban a seller').click();
  await page.getByLabel('Seller, as on its delivery note').fill('Breakwater Sundries');
  await page.getByLabel('Why', { exact: true }).fill('plugs without a heat mark');
  await page.getByRole('button', { name: 'Ban', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Lift the ban on Breakwater Sundries' })).toBeVisible();
  const judge = async (order: string, source: string) => {
    await page.getByLabel('Number that was ordered').fill('KM-2801');
    await page.getByLabel('How many').fill('6');
    await page.getByLabel('Order', { exact: true }).fill(order);
    await page.getByLabel('Number on the box').fill('KM-2801');
    await page.getByLabel('Counted').fill('6');
    await page.getByLabel('Lot', { exact: true }).fill('K26-9');
    await page.getByLabel('Who sent it').fill(source);
    await page.getByLabel('Price of one').fill('3,70');
    await page.getByRole('button', { name: 'Check the delivery' }).click();
  };
  await judge('PO-910', 'breakwater sundries');
  await expect(
    page.getByText(/Nothing is taken from breakwater sundries: plugs without a heat mark/).first(),
  ).toBeVisible();
  await judge('PO-911', 'Ferry Parts Store');
  await expect(page.getByText('Accepted and put on the shelf.')).toBeVisible();
  await expect(page.getByText(/order PO-911, lot K26-9/)).toBeVisible();
  await page.getByText('Take this batch off the shelf').first().click();
  await page.getByLabel('Why it is doubted now').first().fill('one broke at its shell');
  await page.getByRole('button', { name: 'Quarantine what is still on the shelf' }).first().click();
  await expect(page.getByText(/Quarantined on 2026-11-16: one broke at its shell/)).toBeVisible();
});

test('another make is tried against the usual one, and the trial ends with an outcome', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/parts/trials');
  await page.getByLabel('Number on trial').fill('FS-3115');
  await page.getByLabel('Usual number').fill('KM-3110');
  await page.getByLabel('Why it is tried').fill('half the price');
  await page.getByLabel('Look at it on').fill('2026-01-31');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText('Give a day to come.')).toBeVisible();
  await page.getByLabel('Look at it on').fill('2027-01-31');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  const section = page.locator('section').filter({ hasText: 'half the price' });
  await expect(section.getByText(/Too little to tell yet/)).toBeVisible();
  await section.getByText('End this trial').click();
  await section.getByLabel('What came of it').fill('not bought again');
  await section.getByRole('button', { name: 'End', exact: true }).click();
  await expect(section.getByText('Outcome: not bought again')).toBeVisible();
});

test('a policy is chosen with its reason, and the vehicle says which is in force', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/policies');
  const section = page.locator('#interval');
  await section.getByText('Choose for interval').click();
  await section.getByLabel('Option').selectOption('early');
  await section.getByLabel('For', { exact: true }).selectOption('vehicle');
  await section.getByLabel('Duty group or unit number').fill('122');
  await section.getByRole('button', { name: 'Choose', exact: true }).click();
  await expect(section.getByText('Say why, so that the next person can tell.')).toBeVisible();
  await section.getByLabel('Why').fill('its coils run hot');
  await section.getByRole('button', { name: 'Choose', exact: true }).click();
  await expect(section.getByText('Unit 122: Early change')).toBeVisible();
  await user.goTo('Due');
  await page.getByRole('link', { name: /^122 clinic/ }).click();
  await expect(page.getByText(/\(early, 75 %\)/).first()).toBeVisible();
  await user.tab('Details');
  await expect(page.getByText(/for this vehicle: its coils run hot \(R. Tolland\)/)).toBeVisible();
});

test('work under a blocked sheet needs a supervisor’s reason', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor', '/due');
  await page.getByRole('link', { name: /^8 harbour bus/ }).click();
  await expect(page.getByText('The spec sheet in force may not be used yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Open a work order with this reason' }).click();
  await expect(page.getByText('Say why this sheet may be worked by.')).toBeVisible();
  await page.getByLabel('Why it may be worked by all the same').fill('gap confirmed by the maker on the telephone');
  await page.getByRole('button', { name: 'Open a work order with this reason' }).click();
  await expect(page.getByText('Released despite its sheet: gap confirmed by the maker on the telephone')).toBeVisible();
});
