/** House rules as a lead decides them and others see them, and what a finding offers to who may overrule it. */
import { expect, makeDesk, test } from '../bench.ts'

test('a lead decides a house rule with a reason; who else looks sees it at once and decides nothing', async ({
  page,
  desk,
  browser,
  baseURL,
}) => {
  const other = await browser.newPage({ baseURL: baseURL ?? '' })
  await makeDesk(other).signIn('Juno', '/house')
  const theirs = other.getByRole('region', { name: /House rules/ })
  await expect(theirs.getByLabel('charge left at the end, %')).toBeDisabled()
  await expect(theirs).toContainText('A lead decides these')
  await expect(theirs).toContainText('Nobody has decided anything yet')

  await desk.signIn('Ilse', '/house')
  const mine = page.getByRole('region', { name: /House rules/ })
  const decide = mine.getByRole('button', { name: 'Decide so' })
  await mine.getByLabel('charge left at the end, %').fill('ninety')
  await mine.getByLabel('Why', { exact: true }).fill('two came back empty')
  await expect(mine).toContainText('no figure, or more than it may be')
  await expect(decide).toBeDisabled()
  await mine.getByLabel('charge left at the end, %').fill('35')
  await mine.getByText('Everything that its maker writes').click()
  await desk.axe('house rules')
  await decide.press('Enter')
  const history = mine.getByRole('row').filter({ hasText: 'two came back empty' })
  await expect(history).toContainText('Ilse Maro')
  await expect(history).toContainText('charge left at the end, %, Which parts are written')
  await expect(theirs.getByLabel('charge left at the end, %')).toHaveValue('35')
  await expect(theirs.getByLabel('Everything that its maker writes')).toBeChecked()
  await other.close()
})
