import { expect, test } from '@playwright/test';
import { makeClient, ownerApi, signIn, url } from './help.js';

test('a user of one client cannot see another’s', async ({ page }) => {
  const theirs = await makeClient('Quillmarsh');
  const own = await makeClient('Saltbridge');
  const api = await ownerApi();
  const producer = { email: 'sal@agency.example', password: 'another long password' };
  await api('POST', 'users', { email: producer.email, name: 'Sal', role: 'producer', clientIds: [own.clientId] });

  // The invitation comes by mail; its link lets Sal choose a password, once.
  await page.goto(process.env['E2E_MAIL_URL']!);
  const link = page.getByRole('article').filter({ hasText: producer.email }).getByRole('link');
  await expect(link).toBeVisible(); // the page looks again by itself
  const address = (await link.getAttribute('href'))!;
  await link.click();
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Choose it and go in' }).click();
  await expect(page.getByText('Must be at least 12 characters')).toBeVisible();
  await page.getByLabel('Password').fill(producer.password);
  await page.getByRole('button', { name: 'Choose it and go in' }).click();
  await expect(page.getByRole('heading', { name: 'Desk', exact: true })).toBeVisible();
  await page.goto(address);
  await expect(page.getByText('This link leads nowhere')).toBeVisible();
  await page.context().clearCookies();
  await signIn(page, producer);
  await page.getByRole('link', { name: 'Clients', exact: true }).click();
  await expect(page.getByText('Saltbridge')).toBeVisible();
  await expect(page.getByText('Quillmarsh')).toHaveCount(0);
  await page.getByRole('link', { name: 'Schedule', exact: true }).click();
  await expect(page.getByTestId('board')).toContainText('Saltbridge');
  await expect(page.getByTestId('board')).not.toContainText('Quillmarsh');
  await page.goto(url(`/clients/${theirs.clientId}`));
  await expect(page.getByText('There is no such client')).toBeVisible();
  for (const path of [`clients/${theirs.clientId}/audit`, `recordings?clientId=${theirs.clientId}`])
    expect((await page.request.get(url(`/api/${path}`))).status()).toBe(404);
  await page.getByRole('button', { name: 'Sal' }).click();
  await expect(page.getByRole('menuitem', { name: 'Users and assignments' })).toHaveCount(0);
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in to Sift Reel' })).toBeVisible();
  expect((await page.request.get(url('/api/clients'))).status()).toBe(401);
});

test('keys are listed, and every field of a form says what is wrong with it', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys on this screen' })).toContainText('Undo the last change');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('link', { name: 'Clients', exact: true }).click();
  await page.getByRole('button', { name: 'Add a client' }).first().click();
  await page.getByLabel('Time zone').fill('Europe/Atlantis');
  await page.getByRole('dialog').getByRole('button', { name: 'Add the client' }).click();
  await expect(page.getByText('Must not be empty')).toBeVisible();
  await expect(page.getByText('Must be a time zone such as Europe/Dublin')).toBeVisible();
});

test('the screens speak the language that one chooses, to the errors of a form, and go on doing so', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: 'Owner' }).click();
  await page.getByRole('menuitem', { name: 'Español' }).click();
  await expect(page.getByRole('heading', { name: 'Escritorio', exact: true })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('lang', 'es');
  await page.goto(url('/clients'));
  await page.getByRole('button', { name: 'Añadir un cliente' }).first().click();
  await page.getByLabel('Zona horaria').fill('Europe/Atlantis');
  await page.getByRole('dialog').getByRole('button', { name: 'Añadir el cliente' }).click();
  await expect(page.getByText('No puede estar vacío')).toBeVisible();
  await expect(page.getByText('Debe ser una zona horaria como Europe/Madrid')).toBeVisible();
  await page.getByRole('button', { name: 'Cancelar' }).click();
  await page.getByRole('button', { name: 'Owner' }).click();
  await page.getByRole('menuitem', { name: 'English' }).click();
  await expect(page.getByRole('heading', { name: 'Clients', exact: true })).toBeVisible();
});
