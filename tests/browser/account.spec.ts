import { client } from '../api/client'
import { address, createPiece, plainBracelet, expect, join, newName, PASSWORD, test } from './weaver'

test('the doors of an account: devices are signed out, the password is changed, and all of it can be removed', async ({
  page,
}) => {
  const name = await join(page, address(), newName())
  await createPiece(page)
  const elsewhere = client(address())
  const agent = 'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0'
  const enter = (password: string) =>
    elsewhere.call('POST', 'session', { signIn: name, password }, { 'user-agent': agent })
  await enter(PASSWORD)

  await page.goto(`${address()}/settings`)
  const devices = page.getByRole('region', { name: 'Signed in on' }).getByRole('listitem')
  await expect(devices).toHaveCount(2)
  await page.getByRole('button', { name: /^Sign out Firefox on Windows/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Firefox on Windows is signed out.' })).toBeVisible()
  await expect(devices).toHaveCount(1)
  expect((await elsewhere.call('GET', 'piece')).status).toBe(401)

  const change = page.getByRole('region', { name: 'Another password' })
  await change.getByLabel('Password now').fill('not this one at all')
  await change.getByLabel('New password').fill('quite another word')
  await change.getByRole('button', { name: 'Change the password' }).click()
  await expect(page.getByText('That is not your password. Nothing was changed.')).toBeVisible()
  await change.getByLabel('Password now').fill(PASSWORD)
  await change.getByRole('button', { name: 'Change the password' }).click()
  await expect(page.getByText('The password is changed; other devices are signed out.')).toBeVisible()
  expect([(await enter(PASSWORD)).status, (await enter('quite another word')).status]).toEqual([401, 200])

  await page.getByRole('button', { name: 'Remove my account…' }).click()
  await page.getByRole('button', { name: 'Stay' }).click()
  await page.getByRole('button', { name: 'Remove my account…' }).click()
  await page.getByRole('region', { name: 'Leave Weben' }).getByLabel('Your password').fill('quite another word')
  await page.getByRole('button', { name: 'Remove everything of mine' }).click()
  await expect(page).toHaveURL(/\/enter/)
  expect((await enter('quite another word')).status).toBe(401)
})

test('everything of one account is saved to a file, and an empty account reads it back', async ({ page }, info) => {
  await join(page, address(), newName())
  await createPiece(page)
  await page.goto(`${address()}/settings`)
  const keeps = page.getByRole('region', { name: 'What Weben keeps for you' })
  await expect(keeps.getByText('Less than 0.1 MB of the 500 MB it may hold')).toBeVisible()
  const coming = page.waitForEvent('download')
  await keeps.getByRole('link', { name: 'Save everything to a file' }).click()
  const file = info.outputPath('everything.jsonl.gz')
  await (await coming).saveAs(file)

  const read = keeps.getByLabel('Read such a file')
  await read.setInputFiles(file)
  await expect(keeps.getByText('An archive is read into an account that is still empty')).toBeVisible()

  await page.context().clearCookies()
  await join(page, address(), newName())
  await page.goto(`${address()}/settings`)
  await read.setInputFiles(file)
  await expect(keeps.getByText('Read: 1 piece, and 0 things of the box, people and stamps.')).toBeVisible()
  await page.goto(address())
  await expect(page.getByRole('link', { name: new RegExp(plainBracelet().name) }).first()).toBeVisible()
})
