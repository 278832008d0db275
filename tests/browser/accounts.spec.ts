import { expect, RunningApp, signIn, test, watchConsole } from './app.js';

test('a wrong password is said plainly, and a page asked for is opened after signing in', async ({ page, app }) => {
  await page.goto(`${app.url}/workshop`);
  await page.waitForURL('**/sign-in?next=/workshop');
  await page.getByLabel('E-mail').fill('lead@fernhollow.example');
  await page.getByLabel('Password').fill('wrong one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toHaveText('That e-mail address and password do not belong together.');
  await page.getByLabel('Password').fill('towel-under-joint');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/workshop');
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
});

test('a session that ends under somebody’s hands loses nothing that was typed', async ({ page, app }) => {
  // a stream that is cut would tell the page before it saves
  await page.addInitScript(() => Reflect.deleteProperty(window, 'EventSource'));
  await signIn(page, app, '/systems/new');
  await page.getByLabel('Owner', { exact: true }).fill('Kept Across');
  await page.getByLabel('What the owner calls the machine').fill('Long typed');
  // ended at the server: whatever answer is still on its way brings nothing back
  const { token } = (await (await page.request.get(`${app.url}/api/session`)).json()) as { token: string };
  const ended = await page.request.delete(`${app.url}/api/session`, { headers: { 'x-lavacrum-token': token, origin: app.url } });
  expect(ended.ok(), await ended.text()).toBe(true);
  await page.getByRole('button', { name: 'Save and lay out its loop' }).click();
  await expect(page.getByRole('heading', { name: 'Your session ended' })).toBeVisible();
  await page.getByRole('dialog').getByLabel('E-mail').fill('lead@fernhollow.example');
  await page.getByRole('dialog').getByLabel('Password').fill('towel-under-joint');
  await page.getByRole('dialog').getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Your session ended' })).toBeHidden();
  await expect(page.getByLabel('What the owner calls the machine')).toHaveValue('Long typed');
  await page.getByRole('button', { name: 'Save and lay out its loop' }).click();
  await expect(page.getByRole('heading', { name: /Lay out the loop/ })).toBeVisible();
});

test('bad input is named at its field and nothing is half saved', async ({ page, app }) => {
  await signIn(page, app, '/systems/new');
  await page.getByLabel('Owner', { exact: true }).fill('Half Saved');
  await page.getByLabel('Phone').fill('call me');
  await page.getByRole('button', { name: 'Save and lay out its loop' }).click();
  await expect(page.getByText(/phone with value .* fails to match|a phone number of digits/).first()).toBeVisible();
  await page.goto(`${app.url}/systems`);
  await page.getByRole('textbox', { name: 'Name, owner, phone, coolant' }).fill('Half Saved');
  await expect(page.getByText('Nothing matches.')).toBeVisible();
});

test('an address of nothing says so', async ({ page, app }) => {
  await signIn(page, app, '/systems/6f1f0d5e-0000-4000-8000-000000000001');
  await expect(page.getByRole('heading', { name: 'No such machine' })).toBeVisible();
  await page.goto(`${app.url}/no/such/place`);
  await expect(page.getByRole('heading', { name: 'Nothing stands here' })).toBeVisible();
});

test('without demo data the first visit makes the workshop and teaches the next step', async ({ page }) => {
  const own = await RunningApp.open(false);
  const complaints = watchConsole(page);
  try {
    await page.goto(own.url);
    await page.waitForURL('**/first-visit');
    await page.getByLabel('Workshop').fill('Quayside Loops');
    await page.getByLabel('Your name').fill('Nell Harrow');
    await page.getByLabel('E-mail').fill('nell@quayside.example');
    await page.getByLabel('Password').fill('short');
    await page.getByRole('button', { name: 'Make the workshop' }).click();
    await expect(page.getByText(/at least 10 characters/i).first()).toBeVisible();
    await page.getByLabel('Password').fill('long enough now');
    await page.getByRole('button', { name: 'Make the workshop' }).click();
    await page.waitForURL('**/today');
    await expect(page.getByRole('heading', { name: 'Quayside Loops' })).toBeVisible();
    await expect(page.getByText('No machines yet.')).toBeVisible();
    await page.getByRole('link', { name: 'Machines', exact: true }).click();
    await expect(page.getByRole('link', { name: 'Enter the first machine' })).toBeVisible();
    await page.goto(`${own.url}/today`);
    // an empty workshop is led until nothing is missing
    const week = page.getByRole('region', { name: 'The first week' });
    await week.getByLabel('The first bench').fill('Window bench');
    await week.getByRole('button', { name: 'These are our benches' }).click();
    await week.getByRole('button', { name: 'It is only me' }).click();
    await week.getByRole('button', { name: /Everybody: Monday to Friday/ }).click();
    await week.getByLabel(/Clear with inhibitor/).fill('Quayside Clear');
    await week.getByRole('button', { name: 'Onto the shelf' }).click();
    await week.getByRole('button', { name: 'Try a sample' }).click();
    await week.getByRole('link', { name: 'The sample tower' }).click();
    await expect(page.getByRole('heading', { name: /Sample tower/ })).toBeVisible();
    await page.goto(`${own.url}/today`);
    await week.getByRole('button', { name: 'take the sample away' }).click();
    await expect(page.getByText('The sample is gone.')).toBeVisible();
    await week.getByRole('button', { name: 'Later' }).click();
    await week.getByLabel('Telephone').fill('+351 555 77');
    await week.getByRole('button', { name: 'That is where we are' }).click();
    await week.getByLabel('An hour of work').fill('60');
    await week.getByRole('button', { name: 'So much an hour' }).click();
    await expect(week).toHaveCount(0);
    expect(complaints.filter((text) => !text.includes('422'))).toEqual([]);
  } finally {
    await own.kill();
  }
});

test('the lead adds a coolant, a lot, a person and a bench @thorough', async ({ page, app }) => {
  await signIn(page, app, '/store');
  await page.getByRole('button', { name: 'New coolant' }).click();
  await page.getByLabel('Name on the bottle').fill('Marshlight Green');
  await page.getByLabel('Life by its sheet, if any').fill('9');
  await page.getByRole('button', { name: 'Add to the shelf' }).click();
  // its lot stands on the shelf below as well, under the same name
  const bottle = page.getByRole('listitem').filter({ hasText: 'Marshlight Green' }).filter({ hasText: 'ready-mix' });
  await expect(bottle).toContainText('9 months by its sheet');
  await bottle.getByRole('button', { name: 'add a lot' }).click();
  await bottle.getByLabel('Lot on the bottle').fill('M-7');
  await bottle.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(bottle).toContainText('Lots: M-7');
  await page.goto(`${app.url}/workshop/benches`);
  await page.getByLabel('Another bench').fill('Back room');
  await page.getByRole('button', { name: 'Add', exact: true }).last().click();
  await expect(page.getByText('Back room').first()).toBeVisible();
  await page.getByRole('link', { name: 'How it works' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved. Dates follow it at once')).toBeVisible();
});
