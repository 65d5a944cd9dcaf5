import { Application, expect, openPage, test } from './harness';

// What is typed stays until it is stored or dropped on purpose; what is stored can be put right.

test.describe('a shop with nothing in it', () => {
  test('leads to a first fitting: a new player and a new frame on the way, the guide one click away', async ({
    browser,
  }) => {
    const empty = new Application(undefined, '');
    await empty.start();
    const opened = await openPage(browser, empty);
    const there = opened.page;
    try {
      await there.goto('/');
      await there.getByRole('link', { name: 'Your first fitting, step by step' }).click();
      await there.getByRole('heading', { level: 1, name: /first fitting/ }).waitFor();
      await there.goBack();
      await there.getByRole('button', { name: 'Open one' }).click();
      const inDialog = (title: string) => there.getByRole('dialog', { name: title });
      await inDialog('Open a fitting').getByRole('button', { name: 'New player' }).click();
      await inDialog('Add a player').getByRole('textbox', { name: 'Name' }).fill('Signe Lindqvist');
      await inDialog('Add a player').getByRole('button', { name: 'Add' }).click();
      await inDialog('Open a fitting').getByRole('button', { name: 'New frame' }).click();
      for (const [name, value] of [
        ['Tag', 'A-1'],
        ['Maker', 'Oskerra'],
        ['Model', 'Tide 98'],
      ] as const) {
        await inDialog('Add a frame').getByRole('textbox', { name, exact: true }).fill(value);
      }
      await inDialog('Add a frame').getByRole('button', { name: 'Add', exact: true }).click();
      await inDialog('Open a fitting').getByText('A-1').waitFor();
      await inDialog('Open a fitting').getByRole('button', { name: 'Open and measure' }).click();
      await there.waitForURL(/measure/);
      await there.locator('header').getByText('Signe Lindqvist').filter({ visible: true }).waitFor();
      expect(opened.errors).toEqual([]);
    } finally {
      await there.context().close();
      await empty.remove();
    }
  });
});
